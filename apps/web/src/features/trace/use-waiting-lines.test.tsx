// @vitest-environment happy-dom
import '../../testing/component.ts';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, it, vi } from 'vitest';
import { useWaitingLines } from './use-waiting-lines.ts';

beforeEach(() => localStorage.clear());

it('loses no line of another page, and drops only what was dropped', () => {
  const one = renderHook(() => useWaitingLines('u'));
  const other = renderHook(() => useWaitingLines('u'));
  act(() => one.result.current.add(['R1 4q7 a b']));
  act(() => other.result.current.add(['R2 4q7 a b']));
  const again = renderHook(() => useWaitingLines('u'));
  expect(again.result.current.waiting).toEqual(['R1 4q7 a b', 'R2 4q7 a b']);
  act(() => one.result.current.drop('R1 4q7 a b'));
  expect(renderHook(() => useWaitingLines('u')).result.current.waiting).toEqual(['R2 4q7 a b']);
  expect(renderHook(() => useWaitingLines('v')).result.current.waiting).toEqual([]);
});

it('keeps lines in the page where the browser keeps nothing', () => {
  const refuse = () => {
    throw new Error('no storage');
  };
  vi.spyOn(Storage.prototype, 'setItem').mockImplementation(refuse);
  vi.spyOn(Storage.prototype, 'getItem').mockImplementation(refuse);
  const { result } = renderHook(() => useWaitingLines('u'));
  act(() => result.current.add(['R1 4q7 a b']));
  act(() => result.current.add(['R2 4q7 a b']));
  expect(result.current.waiting).toEqual(['R1 4q7 a b', 'R2 4q7 a b']);
  vi.restoreAllMocks();
});
