/** Brings the many ways of typing a unit to one: middle dots between factors, one micro sign, no stray spaces. */
export function tidyUnit(text: string): string {
  return text
    .trim()
    .replace(/[μ]/g, 'µ')
    .replace(/\s*\/\s*/g, '/')
    .replace(/(?<=[A-Za-z²])\s*[*·⋅∙×.\-\s]\s*(?=[A-Za-z])/g, '·');
}
