import { TestBed } from '@angular/core/testing';
import { PageImage } from './page-image';
import { PageRenderer, type Drawn, type PictureWish } from './page-renderer';

const LATE = 3_000;

/** A page on the screen, each picture of which comes three seconds after it was wished for. */
function begin({ decode = () => Promise.resolve() } = {}) {
  HTMLImageElement.prototype.decode = decode;
  const wished: number[] = [];
  const picture = ({ page }: PictureWish): Promise<Drawn> => {
    wished.push(page);
    const drawn = { address: `blob:${page}`, width: 96, height: 136 };
    // Those of before come later still.
    return new Promise((resolve) => setTimeout(() => resolve(drawn), page === 1 ? 2 * LATE : LATE));
  };
  TestBed.configureTestingModule({ providers: [{ provide: PageRenderer, useValue: { picture } }] });
  const fixture = TestBed.createComponent(PageImage);
  const element = fixture.nativeElement as HTMLElement;
  const show = (page: number): void => {
    for (const [name, value] of Object.entries({ url: '/a', page, width: 80 }))
      fixture.componentRef.setInput(name, value);
    TestBed.tick();
  };
  show(1);
  const now = async (ms: number): Promise<(string | null)[]> => {
    await jest.advanceTimersByTimeAsync(ms);
    TestBed.tick();
    return [element.getAttribute('data-state'), element.querySelector('img')!.getAttribute('src')];
  };
  return { fixture, show, now, wished };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('a page is shown once its picture is there', async () => {
  const { now } = begin();
  expect(await now(LATE)).toEqual(['waiting', null]);
  expect(await now(LATE)).toEqual(['drawn', 'blob:1']);
});

test('the picture of a page that is not wanted any more, which comes last, does not take the place of the other', async () => {
  const { show, now, wished } = begin();
  show(2);
  expect(await now(LATE)).toEqual(['drawn', 'blob:2']);
  expect(await now(LATE)).toEqual(['drawn', 'blob:2']);
  expect(wished).toEqual([1, 2]);
});

test('one that cannot be shown is told; after whoever went elsewhere nothing is', async () => {
  const broken = begin({ decode: () => Promise.reject(new Error('no image')) });
  expect(await broken.now(2 * LATE)).toEqual(['failed', 'blob:1']);
  TestBed.resetTestingModule();
  const left = begin();
  left.fixture.destroy();
  await jest.advanceTimersByTimeAsync(2 * LATE);
  expect((left.fixture.nativeElement as HTMLElement).querySelector('img')?.getAttribute('src') ?? null).toBeNull();
});
