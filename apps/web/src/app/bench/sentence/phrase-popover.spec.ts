import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Ticket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { MockStore, provideMockStore } from '@ngrx/store/testing';
import type { BenchActions } from '../../state/bench.actions';
import { benchFeature, type BenchState } from '../../state/bench.state';
import { aDocument, aPrinter } from '../../../stubs/records';
import { PhrasePopover } from './phrase-popover';

const printer = aPrinter({ name: 'P', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] });
const documentRead = (read: number) =>
  aDocument(
    Array.from({ length: 4 }, () => ({ width: 595.276, height: 841.89 })),
    { read },
  );

let store: MockStore<object>;
let fixture: ComponentFixture<PhrasePopover>;
let taken: Ticket[];
let closed: number;

function state(settings: object, read = 0): { [benchFeature.name]: Partial<BenchState> } {
  const ticket = readTicket({ version: 1, documents: [{ file: 'f' }], ...settings });
  const documents = [documentRead(read)];
  const house = readTicket({ version: 1, documents: [{ file: '*' }] });
  const updatedAt = '2026-11-25T10:00:00Z';
  const setups = [
    {
      id: 's',
      name: 'House',
      starts: 'house' as const,
      queue: null,
      revision: 1,
      printerId: null,
      ticket: house,
      updatedAt,
    },
  ];
  return { [benchFeature.name]: { ticket, documents, setups, printer } };
}

async function open(control: string, settings: object = {}): Promise<HTMLElement> {
  TestBed.configureTestingModule({ providers: [provideMockStore({ initialState: state(settings) })] });
  store = TestBed.inject(MockStore) as MockStore<object>;
  taken = [];
  closed = 0;
  jest.spyOn(store, 'dispatch').mockImplementation(((action: ReturnType<typeof BenchActions.ticketChanged>) => {
    taken.push(action.ticket);
    store.setState({ bench: { ...state({})[benchFeature.name], ticket: action.ticket } });
  }) as never);
  fixture = TestBed.createComponent(PhrasePopover);
  fixture.componentRef.setInput('control', control);
  fixture.componentInstance.closed.subscribe(() => (closed += 1));
  await fixture.whenStable();
  return fixture.nativeElement as HTMLElement;
}

const press = async (element: HTMLElement, words: string): Promise<void> => {
  const button = [...element.querySelectorAll('button')].find((one) => one.textContent?.trim() === words);
  button!.click();
  await fixture.whenStable();
};

function typeInto(element: HTMLElement, text: string): HTMLInputElement {
  const field = element.querySelector<HTMLInputElement>('input[type=number]')!;
  field.value = text;
  field.dispatchEvent(new Event('input'));
  return field;
}

test('what is typed outlives news of the job, and is taken once', async () => {
  const element = await open('copies');
  const field = typeInto(element, '24');
  store.setState(state({}, 2));
  store.refreshState();
  await fixture.whenStable();
  expect(field.value).toBe('24');
  field.dispatchEvent(new Event('blur'));
  await press(element, 'Done');
  expect([taken.map(({ copies }) => copies), closed]).toEqual([[24], 1]);
});

test('a number that cannot be is not taken, and the field goes back to what holds', async () => {
  const element = await open('copies', { copies: 3 });
  const field = typeInto(element, '0');
  await fixture.whenStable();
  field.dispatchEvent(new Event('blur'));
  await fixture.whenStable();
  expect([taken, field.value]).toEqual([[], '3']);
});

test('what differs from the house set-up goes back to it; a rare one is left out', async () => {
  const copies = await open('copies', { copies: 3 });
  await press(copies, 'Back to the usual');
  expect([taken.map((ticket) => ticket.copies), closed]).toEqual([[1], 1]);
  TestBed.resetTestingModule();
  const margin = await open('margin', { margin: 8 });
  await press(margin, 'Leave out');
  expect(taken.map((ticket) => ticket.margin)).toEqual([0]);
});

test('the choice that holds is the one chosen; another is taken by pressing it', async () => {
  const element = await open('sides');
  const radios = [...element.querySelectorAll<HTMLInputElement>('input[type=radio]')];
  await fixture.whenStable();
  expect(radios.map(({ checked }) => checked)).toEqual([false, true]);
  radios[0]!.click();
  await fixture.whenStable();
  expect(taken.map(({ sides }) => sides)).toEqual(['two-sided']);
});
