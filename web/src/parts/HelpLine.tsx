import { useEffect, useState } from 'react';

/**
 * What the field that is being typed in is for, along the bottom of the page: for hands without a mouse, which can rest
 * nowhere. Fields tell it to screen readers themselves.
 */
export function HelpLine() {
  const [help, setHelp] = useState('');
  useEffect(() => {
    const told = (e: FocusEvent) =>
      setHelp(
        e.target instanceof Element && e.target.matches('input, select, textarea')
          ? (e.target.getAttribute('aria-description') ?? '')
          : '',
      );
    const gone = () => setHelp('');
    document.addEventListener('focusin', told);
    document.addEventListener('focusout', gone);
    return () => (document.removeEventListener('focusin', told), document.removeEventListener('focusout', gone));
  }, []);
  return help ? (
    <p
      aria-hidden="true"
      data-help-line=""
      className="no-print pointer-events-none fixed inset-x-0 bottom-0 z-20 border-t border-rule bg-panel px-3.5 py-[2px] text-[12.5px]"
    >
      {help}
    </p>
  ) : null;
}
