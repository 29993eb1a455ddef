import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { SelectionField } from './selection-field';

const facts = { name: 'manual.pdf', pages: Array.from({ length: 14 }, () => ({ width: 595, height: 842 })) };
let fixture: ComponentFixture<SelectionField>;
let written: string[];

async function show(text: string): Promise<HTMLElement> {
  fixture.componentRef.setInput('text', text);
  await fixture.whenStable();
  return fixture.nativeElement as HTMLElement;
}

beforeEach(() => {
  fixture = TestBed.createComponent(SelectionField);
  fixture.componentRef.setInput('facts', facts);
  written = [];
  fixture.componentInstance.textChange.subscribe((text) => written.push(text));
});

const says = (element: HTMLElement): string =>
  element.querySelector('.says')?.textContent?.trim().replace(/\s+/g, ' ') ?? '';

test.each([
  ['1-14', 'pages 1 to 14; 14 pages, in order'],
  ['5-2', 'pages 5 to 2 backwards; 4 pages'],
  ['7', 'page 7'],
  ['1, 3, 5, 7, 9, 11, 13, 2, 4, 6, 8, 10', '12 pages, in an order of your own'],
])('%s is read back', async (text, said) => {
  expect(says(await show(text))).toBe(said);
});

test('what is wrong is marked under the very character, and mended by its button', async () => {
  const element = await show('1-4, 15, 3');
  expect(element.querySelector('.at')?.textContent).toBe('15');
  expect(element.querySelector('input')?.getAttribute('aria-invalid')).toBe('true');
  expect(says(element)).toContain(
    'Page 15 is not in manual.pdf, whose last page is 14. Expected: a page from 1 to 14.',
  );
  element.querySelector('button')?.click();
  expect(written).toEqual(['1-4, 14, 3']);
});

test('what has no meaning can be taken out', async () => {
  const element = await show('1-4%');
  expect(element.querySelector('button')?.textContent?.trim()).toBe('Take it out');
  element.querySelector('button')?.click();
  expect(written).toEqual(['1-4']);
});

test('every keystroke is told', async () => {
  const input = (await show('1')).querySelector('input')!;
  input.value = '1-';
  input.dispatchEvent(new Event('input'));
  expect(written).toEqual(['1-']);
});
