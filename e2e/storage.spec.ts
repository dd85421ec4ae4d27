import { blankJoint, expect, openDemo, saved, test, type } from './fixture.ts';

test('full storage: said in words, nothing lost, saved once there is room', async ({ page }) => {
  await openDemo(page);
  await page.evaluate(() => {
    const put = IDBObjectStore.prototype.put;
    (window as unknown as { room: () => void }).room = () => (IDBObjectStore.prototype.put = put);
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
    };
  });
  await type(page, 'Mass carried', '1.4 kg');
  await expect(page.getByRole('alert')).toContainText('storage is full');
  await expect(page.getByRole('textbox', { name: 'Mass carried' })).toHaveValue('1.4 kg');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export this joint' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('Body-yaw.gristmill.json');
  await page.evaluate(() => (window as unknown as { room: () => void }).room());
  await page.getByRole('button', { name: 'Try to save again' }).click();
  await saved(page);
  await expect(page.getByText('storage is full')).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Mass carried' })).toHaveValue('1.4 kg');
});

test('what was typed in the moment before a page is loaded anew is there again', async ({ page }) => {
  await openDemo(page);
  await type(page, 'Mass carried', '1.3 kg');
  await saved(page);
  for (const mass of ['1.4 kg', '1.5 kg']) {
    const field = page.getByRole('textbox', { name: 'Mass carried' });
    await field.fill(mass);
    await field.press('Enter');
    await page.reload();
    await expect(field).toHaveValue(mass);
  }
});

test('blocked storage: said in words, and a joint can still be worked on and exported', async ({ page }) => {
  await page.addInitScript(() => {
    IDBFactory.prototype.open = () => {
      throw new DOMException('The operation is insecure.', 'SecurityError');
    };
    Object.defineProperty(window, 'localStorage', {
      get: () => {
        throw new DOMException('Access is denied for this document.', 'SecurityError');
      },
    });
  });
  await page.goto('/');
  await expect(page.getByRole('alert').first()).toContainText('does not let Gristmill store anything');
  await blankJoint(page);
  await type(page, 'Mass carried', '0.9 kg');
  await expect(page.getByRole('textbox', { name: 'Mass carried' })).toHaveValue('0.9 kg');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export this joint' }).click(),
  ]);
  expect(file.suggestedFilename()).toContain('New-joint');
});

test('another save in between is a conflict, never an overwriting', async ({ page }) => {
  await openDemo(page);
  await type(page, 'Mass carried', '1.2 kg');
  await saved(page);
  // Another program moves the pointer behind this tab's back, lock or no lock.
  await page.evaluate(async () => {
    const db = await new Promise<IDBDatabase>((done, fail) => {
      const r = indexedDB.open('gristmill');
      r.onsuccess = () => done(r.result);
      r.onerror = () => fail(r.error);
    });
    const at = db.transaction(['joints', 'history'], 'readwrite');
    const get = <T>(store: string, key: string) =>
      new Promise<T>(
        (done) => (at.objectStore(store).get(key).onsuccess = (e) => done((e.target as IDBRequest<T>).result)),
      );
    const pointer = await get<{ rev: string; saves: object[] }>('joints', 'demo-body-yaw');
    const joint = await get<{ brief: { cases: { load: number }[] } }>('history', `demo-body-yaw/${pointer.rev}`);
    joint.brief.cases[0]!.load = 7;
    at.objectStore('history').put(joint, 'demo-body-yaw/theirs');
    const done = new Promise((x) => (at.oncomplete = x));
    at.objectStore('joints').put(
      {
        ...pointer,
        rev: 'theirs',
        saves: [{ rev: 'theirs', when: new Date().toISOString(), label: 'Theirs' }, ...pointer.saves],
      },
      'demo-body-yaw',
    );
    await done;
    db.close();
  });
  await type(page, 'Mass carried', '1.3 kg');
  await expect(page.getByRole('alert')).toContainText(/Another tab has saved this joint, and both tabs changed .*load/);
  // Left at once, while the copy is being stored: it is stored, and nobody is fetched back to it.
  await page.evaluate(() => {
    const button = [...document.querySelectorAll('button')].find((b) => b.textContent === 'Keep mine as a copy')!;
    const home = [...document.querySelectorAll('a')].find((a) => a.getAttribute('href') === '/')!;
    button.click();
    home.click();
  });
  await expect(page.getByRole('link', { name: 'Body yaw (other tab)' })).toBeVisible();
  await expect(page).toHaveURL(/\/$/);
  await page.getByRole('link', { name: 'Body yaw', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Mass carried' })).toHaveValue('7 kg');
});
