import fc from 'fast-check';
import { buffersOf, packHolder, unpackHolder } from './packed';

/** What comes out of what was packed. */
const sent = <T extends object>(value: T, name: keyof T & string): T => {
  const packed = packHolder(value, name);
  return unpackHolder<T>(packed);
};

const leaf = fc.oneof(fc.double(), fc.integer(), fc.string(), fc.boolean(), fc.constant(null));
const side = fc.record(
  {
    orientation: fc.constantFrom('portrait', 'landscape'),
    cells: fc.array(fc.record({ x: fc.double(), clip: fc.option(fc.array(fc.double(), { maxLength: 4 })) })),
    marks: fc.array(fc.tuple(fc.double(), fc.double())),
  },
  { requiredKeys: ['orientation', 'cells'] },
);
const sheet = fc.record(
  {
    index: fc.integer(),
    tray: fc.option(fc.constantFrom('tray-1', 'tray-2')),
    slip: fc.boolean(),
    front: side,
    back: fc.option(side),
    other: leaf,
  },
  { requiredKeys: ['index', 'tray', 'front', 'back'] },
);

test('what is unpacked is what was packed, whatever it is made of', () => {
  fc.assert(
    fc.property(
      fc.array(fc.oneof({ weight: 9, arbitrary: sheet }, leaf), { maxLength: 60 }),
      fc.string(),
      (sheets, title) => {
        expect(sent({ title, sheets }, 'sheets')).toEqual({ title, sheets });
      },
    ),
  );
});

test('among many of few kinds the zero below zero stays what it is', () => {
  const sheets = Array.from({ length: 60 }, (_, index) => ({ x: [0, -0, null][index % 3] }));
  expect(sent({ sheets }, 'sheets')).toEqual({ sheets });
});

test('what was one object in many places is one again', () => {
  const paper = { width: 595 };
  const sheets = Array.from({ length: 40 }, (_, index) => ({ index, paper }));
  const back = sent({ sheets }, 'sheets').sheets;
  expect(back[0]!.paper).toBe(back[39]!.paper);
});

test('of many sheets nothing but numbers is left to copy', () => {
  const sheets = Array.from({ length: 1_000 }, (_, index) => ({
    index,
    front: { cells: [{ page: index, x: index / 3, clip: index % 2 ? null : [0, 0, index, index] }] },
  }));
  const packed = packHolder({ sheets }, 'sheets');
  const copied = JSON.stringify(packed, (_, value: unknown) => (ArrayBuffer.isView(value) ? null : value));
  expect(copied.length).toBeLessThan(2_000);
  expect(buffersOf(packed).length).toBeGreaterThan(4);
});
