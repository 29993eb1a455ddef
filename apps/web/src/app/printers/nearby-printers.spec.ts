import { TestBed } from '@angular/core/testing';
import type { NearbyPrinter } from '@foglio/api';
import { Subject } from 'rxjs';
import { Api } from '../api/api';
import { NearbyPrinters } from './nearby-printers';

const FOYER: NearbyPrinter = {
  name: 'Foyer',
  uri: 'ipp://192.0.2.7:631/ipp/print',
  model: null,
  place: 'Ground floor',
  printerId: null,
};

/** The list with nobody asked yet; each look is answered when it is told to be. */
function open() {
  const looks: Subject<readonly NearbyPrinter[]>[] = [];
  const nearbyPrinters = () => {
    const look = new Subject<readonly NearbyPrinter[]>();
    looks.push(look);
    return look;
  };
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: { nearbyPrinters } }] });
  const fixture = TestBed.createComponent(NearbyPrinters);
  const chosen: string[] = [];
  fixture.componentInstance.chosen.subscribe((uri) => chosen.push(uri));
  const show = (change: Readonly<Record<string, unknown>> = {}): void => {
    for (const [name, value] of Object.entries(change)) fixture.componentRef.setInput(name, value);
    fixture.detectChanges();
  };
  show({ listed: [] });
  const page = fixture.nativeElement as HTMLElement;
  const button = (name: string): HTMLButtonElement | undefined =>
    [...page.querySelectorAll('button')].find((one) => (one.ariaLabel ?? one.textContent ?? '').trim() === name);
  const isOff = (name: string): boolean => button(name)!.getAttribute('aria-disabled') === 'true';
  const press = (name: string): void => {
    button(name)!.click();
    show();
  };
  const text = (): string => page.textContent?.replace(/\s+/g, ' ').trim() ?? '';
  return { looks, chosen, show, button, isOff, press, text };
}

test('while the net is listened to that is said, and it is asked once', () => {
  const { looks, press, button, isOff, text, show } = open();
  press('Look for printers on the net');
  expect(text()).toBe('Listening for printers');
  // It keeps the focus, and does nothing meanwhile.
  expect([isOff('Listening for printers'), button('Listening for printers')!.disabled]).toEqual([true, false]);
  press('Listening for printers');
  looks[0]!.next([FOYER]);
  show();
  expect(text()).toContain('FoyerGround floor');
  expect(looks).toHaveLength(1);
});

test('none is said to be none; one that failed is said, and what was found stays until it goes better', () => {
  const { looks, press, text, show } = open();
  press('Look for printers on the net');
  looks[0]!.next([]);
  show();
  expect(text()).toContain('None announces itself.');
  press('Look again');
  looks[1]!.error(new Error('no connection'));
  show();
  expect(text()).toContain('no connection');
  press('Look again');
  looks[2]!.next([FOYER]);
  show();
  expect(text()).not.toContain('no connection');
  expect(text()).toContain('Foyer');
});

test('one is taken up once: what is in the list already, or is just being asked, cannot be', () => {
  const { looks, press, chosen, button, isOff, text, show } = open();
  press('Look for printers on the net');
  looks[0]!.next([FOYER, { ...FOYER, name: 'Library', uri: 'ipp://192.0.2.8:631/', printerId: 'library' }]);
  show();
  expect(button('Add Library')).toBeUndefined();
  press('Add Foyer');
  show({ busy: true });
  expect(isOff('Add Foyer')).toBe(true);
  press('Add Foyer');
  show({ busy: false, listed: [FOYER.uri] });
  expect(button('Add Foyer')).toBeUndefined();
  expect(text().match(/in the list/g)).toHaveLength(2);
  expect(chosen).toEqual([FOYER.uri]);
});
