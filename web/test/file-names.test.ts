import { describe, expect, it } from 'vitest';
import { fileName } from '../src/app/download.ts';

describe('files', () => {
  it('get names that any file system takes', () => {
    expect(fileName('Tide dial / A', '../../x', 'ｆ', '')).toBe('Tide-dial-A_x_ｆ');
    expect(fileName('***')).toBe('joint');
    expect(fileName('<svg onload=alert(1)>')).toBe('svg-onload-alert-1');
  });
});
