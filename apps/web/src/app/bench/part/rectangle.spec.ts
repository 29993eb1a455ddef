import fc from 'fast-check';
import { byKey, drawn, GRIPS, moved, resized, type Rectangle } from './rectangle';

const A4 = { width: 210, height: 297 };
const TABLE: Rectangle = { left: 20, top: 30, width: 100, height: 50 };

test('drawn from any corner to the opposite one, in whole millimetres, within the page', () => {
  expect(drawn({ x: 20.4, y: 30.2 }, { x: 119.6, y: 80 }, A4)).toEqual(TABLE);
  expect(drawn({ x: 119.6, y: 80 }, { x: 20.4, y: 30.2 }, A4)).toEqual(TABLE);
  expect(drawn({ x: -40, y: 250 }, { x: 500, y: 900 }, A4)).toEqual({ left: 0, top: 250, width: 210, height: 47 });
});

test('a press without drawing is no smaller than can be seen', () => {
  expect(drawn({ x: 210, y: 297 }, { x: 210, y: 297 }, A4)).toEqual({ left: 208, top: 295, width: 2, height: 2 });
});

test('moved as a whole, up to the edge', () => {
  expect(moved(TABLE, { x: 5, y: -3 }, A4)).toEqual({ ...TABLE, left: 25, top: 27 });
  expect(moved(TABLE, { x: 500, y: 500 }, A4)).toEqual({ ...TABLE, left: 110, top: 247 });
});

test('an edge moves alone, and stops before the opposite one', () => {
  expect(resized(TABLE, 'e', { x: 10, y: 99 }, A4)).toEqual({ ...TABLE, width: 110 });
  expect(resized(TABLE, 'nw', { x: 10, y: 10 }, A4)).toEqual({ left: 30, top: 40, width: 90, height: 40 });
  expect(resized(TABLE, 'n', { x: 0, y: 400 }, A4)).toEqual({ ...TABLE, top: 78, height: 2 });
});

test('by keys: the arrows move it, with Shift they move its lower right corner, with Alt by ten', () => {
  const press = (key: string, more: object = {}) => byKey(TABLE, { key, shiftKey: false, altKey: false, ...more }, A4);
  expect(press('ArrowRight')).toEqual({ ...TABLE, left: 21 });
  expect(press('ArrowDown', { altKey: true })).toEqual({ ...TABLE, top: 40 });
  expect(press('ArrowLeft', { shiftKey: true })).toEqual({ ...TABLE, width: 99 });
  expect(press('Enter')).toBeNull();
});

test('whatever is done to it, it stays on the page and can be seen', () => {
  const by = fc.record({ x: fc.double({ min: -600, max: 600, noNaN: true }), y: fc.integer({ min: -600, max: 600 }) });
  fc.assert(
    fc.property(by, by, fc.constantFrom(...GRIPS), (one, other, grip) => {
      for (const { left, top, width, height } of [
        drawn(one, other, A4),
        moved(drawn(one, other, A4), one, A4),
        resized(drawn(one, other, A4), grip, other, A4),
      ]) {
        expect([left >= 0, top >= 0, left + width <= 210, top + height <= 297]).toEqual([true, true, true, true]);
        expect([Number.isInteger(left), Number.isInteger(height), width >= 2, height >= 2]).toEqual(
          Array(4).fill(true),
        );
      }
    }),
  );
});
