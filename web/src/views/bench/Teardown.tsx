import type { BenchTest } from '@gristmill/core';
import { useRef, type FormEvent } from 'react';
import { toast } from 'sonner';
import { newId } from '../../state/identifier.ts';
import { useOpen } from '../../state/open.ts';
import { editTest } from './edit-test.ts';
import { Said } from '../../parts/Said.tsx';

const LARGEST = 1000;

/** A photo no wider than a thousand pixels, as text that a joint can hold. */
async function smallPhoto(file: File): Promise<string> {
  const image = await createImageBitmap(file);
  const scale = Math.min(1, LARGEST / Math.max(image.width, image.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(image.width * scale);
  canvas.height = Math.round(image.height * scale);
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  return canvas.toDataURL('image/jpeg', 0.78);
}

/** What each part looked like when the specimen was taken apart. */
export function Teardown({ test }: { test: BenchTest }) {
  const readOnly = useOpen((s) => s.readOnly);
  const photo = useRef<HTMLInputElement>(null);
  const target = useRef('');
  const add = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const data = new FormData(e.currentTarget);
    const part = String(data.get('part')).trim();
    if (!part) return;
    editTest(
      test.id,
      'Record a part at teardown',
      (t) =>
        void (t.teardown ??= []).push({
          id: newId(),
          part,
          condition: String(data.get('condition')),
          note: String(data.get('note')).trim(),
        }),
    );
    e.currentTarget.reset();
  };
  const addPhoto = async (file: File | undefined) => {
    if (!file) return;
    try {
      const text = await smallPhoto(file);
      editTest(test.id, 'Add a photo', (t) => {
        const record = t.teardown?.find((x) => x.id === target.current);
        if (record) (record.photos ??= []).push(text);
      });
    } catch {
      toast('That file is not a picture that can be shown. Choose a JPEG or PNG.');
    }
  };
  return (
    <section aria-label="Teardown" className="pt-2">
      <h2 className="rule-b pb-1">Teardown</h2>
      {test.teardown?.length ? (
        <ul>
          {test.teardown.map((r) => (
            <li key={r.id} className="rule-b flex flex-wrap items-baseline gap-x-3 py-1">
              <b className="font-semibold">{r.part}</b>
              <span>{r.condition}</span>
              <span className="label">
                <Said>{r.note}</Said>
              </span>
              {readOnly ? null : (
                <button
                  type="button"
                  className="btn-quiet no-print"
                  onClick={() => {
                    target.current = r.id;
                    photo.current?.click();
                  }}
                >
                  Add photo
                </button>
              )}
              {r.photos?.length ? (
                <span className="flex w-full flex-wrap gap-2 pt-1">
                  {r.photos.map((p, i) => (
                    <img key={i} src={p} alt={`${r.part}, photo ${i + 1}`} className="h-24 border border-rule" />
                  ))}
                </span>
              ) : null}
            </li>
          ))}
        </ul>
      ) : (
        <p className="label py-1">Take it apart at the end and record each part: what wore, and how.</p>
      )}
      <input
        ref={photo}
        type="file"
        accept="image/*"
        className="sr-only"
        tabIndex={-1}
        aria-label="Photo of a part"
        onChange={(e) => {
          void addPhoto(e.target.files?.[0]);
          e.target.value = '';
        }}
      />
      {readOnly ? null : (
        <form onSubmit={add} className="no-print flex flex-wrap items-baseline gap-2 py-1.5" aria-label="Add a part">
          <label>
            part{' '}
            <input
              name="part"
              className="field-input !w-32 !text-left"
              aria-label="Part"
              placeholder="planet 2"
              maxLength={80}
            />
          </label>
          <label>
            condition{' '}
            <select name="condition" className="select" aria-label="Condition">
              {['like new', 'polished', 'worn', 'scored', 'cracked', 'deformed', 'broken'].map((c) => (
                <option key={c}>{c}</option>
              ))}
            </select>
          </label>
          <label>
            note <input name="note" className="field-input !w-44 !text-left" aria-label="Note" maxLength={300} />
          </label>
          <button type="submit" className="btn">
            Add part
          </button>
        </form>
      )}
    </section>
  );
}
