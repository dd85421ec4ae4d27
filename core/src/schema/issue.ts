import * as v from 'valibot';

/** Where in a record an issue lies, as a dotted path behind what comes before it. */
export const place = (issue: v.BaseIssue<unknown>, before = ''): string => {
  const path = v.getDotPath(issue) ?? '';
  return [before, path].filter(Boolean).join('.');
};

/** What is wrong with a value, to go on after its name: “must be at least 3”. */
export function sayIssue(issue: v.BaseIssue<unknown>): string {
  if (issue.received === 'undefined') return 'is missing';
  if (issue.type === 'raw_transform' && !issue.message.startsWith('must')) return `cannot be read: ${issue.message}`;
  return /^(must|needs|is)/.test(issue.message)
    ? issue.message
    : issue.type === 'picklist' || issue.type === 'literal' || issue.type === 'variant'
      ? `must be one of ${issue.expected ?? 'the known values'}, and is ${issue.received.slice(0, 40)}`
      : `must be ${issue.expected ?? 'different'}, and is ${issue.received.slice(0, 40)}`;
}
