import { readFileSync } from 'node:fs';

/** Bytes of a page of memory, in which Linux counts. */
const MEMORY_PAGE = 4096;

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

/** Processes that a process started (proc(5), task/[tid]/children). */
function childrenOf(pid: number): number[] {
  try {
    return readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').filter(Boolean).map(Number);
  } catch {
    return [];
  }
}
