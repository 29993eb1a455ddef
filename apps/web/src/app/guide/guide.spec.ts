import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { JobBrief, JobList, JobRecord } from '@foglio/api';
import { plainTicket } from '@foglio/core';
import { Subject } from 'rxjs';
import { Api } from '../api/api';
import { Guide } from './guide';
import { GUIDE_JOBS, guideTicket } from './guide-jobs';

const CONTRACT = GUIDE_JOBS[0]!;

/** The guide over answers that the test gives when it likes. */
function show() {
  const [listed, created] = [new Subject<JobList>(), new Subject<JobRecord>()];
  const createJob = jest.fn(() => created);
  const navigate = jest.fn(() => Promise.resolve(true));
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: { jobs: () => listed, createJob } },
      { provide: Router, useValue: { navigate } },
    ],
  });
  const fixture = TestBed.createComponent(Guide);
  fixture.detectChanges();
  const element = fixture.nativeElement as HTMLElement;
  const button = (): HTMLButtonElement => element.querySelector<HTMLButtonElement>('button')!;
  const press = (): void => {
    fixture.detectChanges();
    button().click();
    fixture.detectChanges();
  };
  return { fixture, element, listed, created, createJob, navigate, button, press };
}

const demoJob = (title = 'Season contract'): JobBrief =>
  ({ id: title, names: ['season-contract.pdf'], ticket: { ...plainTicket(['file-1']), title } }) as unknown as JobBrief;
const listOf = (...jobs: JobBrief[]): JobList => ({ jobs, total: jobs.length });

/** What was promised has been told on. */
async function settled(): Promise<void> {
  for (let turn = 0; turn < 10; turn += 1) await Promise.resolve();
}

test('nothing is said to be gone before the jobs are known, and what failed is told', () => {
  const { fixture, element, listed, button } = show();
  expect([button().disabled, element.textContent?.includes('not here any more')]).toEqual([true, false]);
  listed.error(new Error('the server is away'));
  fixture.detectChanges();
  expect(element.querySelector('[role=alert]')?.textContent).toContain('the server is away');
});

test('pressed twice while the answer is late, one job is made; then the Bench opens', async () => {
  const { listed, created, createJob, navigate, press } = show();
  listed.next(listOf(demoJob()));
  press();
  press();
  expect(createJob).toHaveBeenCalledTimes(1);
  expect(createJob).toHaveBeenCalledWith(guideTicket(CONTRACT, ['file-1']));
  created.next({ id: 'new' } as JobRecord);
  await settled();
  expect(navigate).toHaveBeenCalledWith(['/jobs', 'new']);
});

test('an answer that comes once the guide is left takes nobody away from where they went', async () => {
  const { fixture, listed, created, navigate, press } = show();
  listed.next(listOf(demoJob()));
  press();
  fixture.destroy();
  created.next({ id: 'new' } as JobRecord);
  await settled();
  expect(navigate).not.toHaveBeenCalled();
});

test('what fails is told, and can be tried again', async () => {
  const { fixture, element, listed, created, createJob, press } = show();
  listed.next(listOf(demoJob()));
  press();
  created.error(new Error('no room left'));
  await settled();
  fixture.detectChanges();
  expect(element.querySelector('[role=alert]')?.textContent).toContain('no room left');
  press();
  expect(createJob).toHaveBeenCalledTimes(2);
});

test('one that was opened before is opened as it was left', async () => {
  const { listed, createJob, navigate, press } = show();
  listed.next(listOf(demoJob(), demoJob(CONTRACT.title)));
  press();
  await settled();
  expect(createJob).not.toHaveBeenCalled();
  expect(navigate).toHaveBeenCalledWith(['/jobs', CONTRACT.title]);
});
