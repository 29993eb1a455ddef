import { writeFileSync } from 'node:fs';
import { constants, setPriority } from 'node:os';

/** As `nice` has it: a tenth of what others get where all are busy. With less it might never come to an end. */
const SESSION_NICE = 10;

/** The kernel lets others than root say so ten times a second, all of them together. */
const AGAIN_MS = 150;

/**
 * This process gives way to all others. Where the kernel shares the processors out among sessions first and only then among
 * their processes (sched(7), "The autogroup feature"), a process's own priority counts for nothing against a browser, which
 * runs in another session: its session's does. So this is for a process that leads a session of its own.
 */
export function stepBack(): void {
  setPriority(constants.priority.PRIORITY_LOW);
  stepSessionBack();
}

function stepSessionBack(): void {
  try {
    writeFileSync('/proc/self/autogroup', String(SESSION_NICE));
  } catch (error) {
    // Without that feature there is no such file, and its own priority counts.
    if ((error as NodeJS.ErrnoException).code === 'EAGAIN') setTimeout(stepSessionBack, AGAIN_MS).unref();
  }
}
