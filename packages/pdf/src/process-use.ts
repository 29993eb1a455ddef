import { readFileSync } from 'node:fs';

/** What processes take of the machine, as Linux counts it. */

/** Bytes of a page of memory, in which Linux counts. */
const MEMORY_PAGE = 4096;

/** Of processor time: a hundredth of a second on every Linux that Debian builds (time(7), USER_HZ). */
const TICK_MS = 10;

/** Bytes a process holds in memory (proc(5), statm); 0 where it has just ended. */
export function memoryOf(pid: number | undefined): number {
  try {
    return Number(readFileSync(`/proc/${pid}/statm`, 'utf8').split(' ')[1]) * MEMORY_PAGE;
  } catch {
    return 0;
  }
}

/** The same with all that it started; what they share counts for each. */
export function memoryOfTree(pid: number): number {
  return childrenOf(pid).reduce((sum, child) => sum + memoryOfTree(child), memoryOf(pid));
}

/**
 * Processor time in milliseconds that a process and all that it started have had (proc(5), stat: utime, stime, and the same of
 * those that have ended).
 */
export function processorTimeOf(pid: number): number {
  let own = 0;
  try {
    const said = readFileSync(`/proc/${pid}/stat`, 'utf8');
    // The name, which is second, may hold anything, brackets and spaces too.
    const fields = said.slice(said.lastIndexOf(')') + 2).split(' ');
    own = fields.slice(11, 15).reduce((sum, ticks) => sum + Number(ticks), 0) * TICK_MS;
  } catch {
    // It has just ended.
  }
  return childrenOf(pid).reduce((sum, child) => sum + processorTimeOf(child), own);
}

/** Processes that a process started (proc(5), task/[tid]/children). */
function childrenOf(pid: number): number[] {
  try {
    return readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').filter(Boolean).map(Number);
  } catch {
    return [];
  }
}
