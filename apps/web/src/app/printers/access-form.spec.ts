import { TestBed } from '@angular/core/testing';
import type { PrinterAccess } from '@foglio/api';
import { AccessForm } from './access-form';

function open(inputs: Readonly<Record<string, unknown>>) {
  const fixture = TestBed.createComponent(AccessForm);
  const said: PrinterAccess[] = [];
  fixture.componentInstance.said.subscribe((one) => said.push(one));
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  fixture.detectChanges();
  return { page: fixture.nativeElement as HTMLElement, said };
}

test('a certificate is trusted by its whole fingerprint, which is shown in rows', () => {
  const fingerprint = Array.from({ length: 32 }, (_, at) => at.toString(16).padStart(2, '0').toUpperCase()).join(':');
  const { page, said } = open({ certificate: { fingerprint, subject: 'Foyer', validTo: 'Nov 30 2027' } });
  const rows = [...page.querySelectorAll('.fingerprint span')].map(({ textContent }) => textContent.trim());
  expect([rows.length, rows.join('')]).toEqual([4, fingerprint]);
  page.querySelector('button')!.click();
  expect(said).toEqual([{ fingerprint }]);
});

test('a name and a password are said as they are written; the password is shown to nobody', () => {
  const { page, said } = open({ known: 'anna' });
  const [name, password] = [...page.querySelectorAll('input')];
  expect([name!.value, password!.type]).toEqual(['anna', 'password']);
  password!.value = ' Seven doors ';
  page.querySelector('form')!.dispatchEvent(new Event('submit'));
  expect(said).toEqual([{ login: { name: 'anna', password: ' Seven doors ' } }]);
});

test('while the printer is asked, nothing is said twice', () => {
  const { page, said } = open({ busy: true });
  const button = page.querySelector('button')!;
  // It keeps the focus.
  expect([button.getAttribute('aria-disabled'), button.disabled]).toEqual(['true', false]);
  page.querySelector('form')!.dispatchEvent(new Event('submit'));
  expect(said).toEqual([]);
});
