import { TestBed } from '@angular/core/testing';
import { aPrinter } from '../../stubs/records';
import { Cabinet, type PaperSaid } from './cabinet';

const OFFICE = {
  name: 'Office',
  trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm', type: 'stationery', weight: 80, price: 0.012 }],
};

/** The drawers with the form of the first one open. */
function open() {
  const fixture = TestBed.createComponent(Cabinet);
  const said: PaperSaid[] = [];
  fixture.componentInstance.described.subscribe((one) => said.push(one));
  const show = (change: Readonly<Record<string, unknown>>): void => {
    for (const [name, value] of Object.entries(change)) fixture.componentRef.setInput(name, value);
    fixture.detectChanges();
  };
  show({ printer: aPrinter(OFFICE), asked: 'tray-1' });
  const fields = (): HTMLInputElement[] => [
    ...(fixture.nativeElement as HTMLElement).querySelectorAll<HTMLInputElement>('.said select, .said input'),
  ];
  const values = (): string[] => fields().map(({ value }) => value);
  const choose = (at: number, value: string): void => {
    const field = fields()[at]!;
    field.value = value;
    field.dispatchEvent(new Event('change'));
    fixture.detectChanges();
  };
  return { show, values, choose, said };
}

const KNOWN = ['iso_a4_210x297mm', 'stationery', '80', '0.012'];

test('what is chosen stands while its answer is on its way; refused, what is known stands again', () => {
  const { show, values, choose, said } = open();
  expect(values()).toEqual(KNOWN);
  choose(0, 'iso_a5_148x210mm');
  choose(2, '120');
  expect(said).toEqual([
    { tray: 'tray-1', said: { size: 'iso_a5_148x210mm' } },
    { tray: 'tray-1', said: { weight: 120 } },
  ]);
  expect(values()).toEqual(['iso_a5_148x210mm', 'stationery', '120', '0.012']);
  show({ refused: 1 });
  expect(values()).toEqual(KNOWN);
});

test('what the answer says is shown, and what the printer reports otherwise', () => {
  const { show, values, choose } = open();
  choose(0, 'iso_a5_148x210mm');
  const [tray] = OFFICE.trays;
  const profile = { ...OFFICE, trays: [{ ...tray!, size: 'iso_a5_148x210mm' }] };
  show({ printer: aPrinter(profile, { reportedSizes: { 'tray-1': 'iso_a4_210x297mm' } }) });
  expect(values()[0]).toBe('iso_a5_148x210mm');
});

test('what is no weight is put back at once', () => {
  const { values, choose, said } = open();
  choose(2, '7');
  expect([values()[2], said]).toEqual(['80', []]);
});
