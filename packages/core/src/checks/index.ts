import type { Check } from '../plan/plan';
import { backsReadOtherwise } from './backs-read-otherwise';
import { blankBack } from './blank-back';
import { bookletPadded } from './booklet-padded';
import { bookletSplit } from './booklet-split';
import { colorOnMono } from './color-on-mono';
import { comesOutLastFirst } from './comes-out-last-first';
import type { CheckContext, CheckRule } from './context';
import { finishingUnknown } from './finishing-unknown';
import { formatUnknown } from './format-unknown';
import { grayCodedAsColor } from './gray-coded-as-color';
import { largeRun } from './large-run';
import { lineOverContent } from './line-over-content';
import { mixedSizesStapled } from './mixed-sizes-stapled';
import { noTrayForPaper } from './no-tray-for-paper';
import { notLaidOut } from './not-laid-out';
import { outputBinUnknown } from './output-bin-unknown';
import { outsidePrintable } from './outside-printable';
import { routeUnused } from './route-unused';
import { separateJobs } from './separate-jobs';
import { sizeChanged } from './size-changed';
import { stapleOffBinding } from './staple-off-binding';
import { textTooSmall } from './text-too-small';
import { tooHeavyForDuplex } from './too-heavy-for-duplex';
import { tooManyToStaple } from './too-many-to-staple';
import { tooManyWrittenOut } from './too-many-written-out';
import { trayShort } from './tray-short';
import { traysBySize } from './trays-by-size';
import { trayUnknown } from './tray-unknown';
import { trayWrongPaper } from './tray-wrong-paper';
import { twoPasses } from './two-passes';
import { twoPassesMixed } from './two-passes-mixed';
import { uncollated } from './uncollated';

/** In the order of the table in the model: what stops a job first. */
const RULES: readonly CheckRule[] = [
  notLaidOut,
  trayUnknown,
  trayWrongPaper,
  noTrayForPaper,
  trayShort,
  traysBySize,
  outputBinUnknown,
  finishingUnknown,
  tooManyToStaple,
  mixedSizesStapled,
  stapleOffBinding,
  formatUnknown,
  tooHeavyForDuplex,
  twoPasses,
  twoPassesMixed,
  routeUnused,
  bookletSplit,
  textTooSmall,
  sizeChanged,
  outsidePrintable,
  lineOverContent,
  blankBack,
  bookletPadded,
  colorOnMono,
  grayCodedAsColor,
  uncollated,
  tooManyWrittenOut,
  largeRun,
  separateJobs,
  backsReadOtherwise,
  comesOutLastFirst,
];

/** Everything the plan shows that a person should settle or know before paper moves. */
export const runChecks = (context: CheckContext): Check[] => RULES.flatMap((rule) => rule(context));
