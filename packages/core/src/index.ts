/** All that other rooms may import of the core; `validate` is apart, since Ajv has no place in the browser. */
export { orientationOf, type Orientation } from './paper/orientation';
export { facingOf, findTray, marginAt, trayName, type Printer, type PrinterInput, type Tray } from './printer/printer';
export { printerSchema } from './printer/printer.schema';
export {
  findSize,
  KNOWN_SIZES,
  matchSize,
  mmToPoints,
  pointsToMm,
  readSizeName,
  saySize,
  type NamedSize,
} from './paper/sizes';
export type { AboutDocument, DocumentFacts, Heading, PageFacts } from './pages/facts';
export { REPAIRED } from './pages/facts';
export { aboutDocumentSchema, headingSchema, laidOutSchema, pageFactsSchema } from './pages/facts.schema';
export {
  formFor,
  isLaidOutAs,
  laidOut,
  type Form,
  type FormKind,
  type LaidOut,
  type SheetFound,
} from './pages/laid-out';
export { headingRange, sectionsOf, type PageRange } from './pages/outline';
export { labelOf } from './pages/page-labels';
export { selectPages, type SelectionContext } from './pages/selection';
export { pathsAskedFor } from './pages/beside';
export { SelectionError } from './pages/selection-error';
export { fitsAnyDocument, generalised } from './pages/selection-general';
export { listNumbers, listPages, sayPages } from './pages/selection-words';
export { writeSelection, writeTerms } from './pages/selection-write';
export { arrangeDocuments, printTwice } from './ticket/arrange-documents';
export { byPosition } from './ticket/by-position';
export { routePages, type PageToRoute, type RouteChange } from './ticket/route-pages';
export {
  ANY_FILE,
  applySetup,
  entryFor,
  isSetup,
  openSelections,
  setupOf,
  withSelection,
  type OpenSelection,
  type SetupFile,
} from './ticket/setup';
export {
  allLike,
  isMonochrome,
  type Layout,
  type Route,
  type Sides,
  type Ticket,
  type TicketInput,
} from './ticket/ticket';
export { isSameTicket } from './ticket/same-ticket';
export { fragmentOf, KNOWN, OF_SHEET, sheetSchemas, TOLD, type KnownField, type SheetSettings } from './settings';
export { FINISHINGS, onMedium, type Finishing, type FinishingKind } from './settings/finishing-words';
export { sayFinishing } from './settings/finishing-said';
export { isOfParts, partsOfSet } from './planning/finish';
export { inParts } from './sending/in-parts';
export { LINE_FIELDS, LINE_SIZE } from './settings/lines';
export { onLoadedPaper } from './ticket/loaded-paper';
export { plainTicket } from './ticket/plain-ticket';
export { storedPrinter, storedTicket } from './ticket/stored';
export { TicketError } from './ticket/ticket-error';
export { bookletDefaults, gridDefaults, tilesDefaults } from './settings/layout';
export { ticketSchema } from './ticket/ticket.schema';
export { plan } from './planner/planner';
export type { Cell, Check, Mark, PageName, Plan, Repair, Sheet, Side, Text } from './plan/plan';
export { boxOfText } from './planning/lines';
export { momentOf, sayDay, sayMoment } from './marks/moment';
export { finishedSide, HOLE_WIDTH } from './plan/finished-side';
export { boxOf, visibleBox, wholePage } from './plan/whole-page';
export { planSchema } from './plan/plan.schema';
export { COLLATED_DOCUMENTS, collatesDocuments, makesSets, SAYS_COLLATED, SAYS_UNCOLLATED } from './sending/makes-sets';
export { isAsleep } from './printer/asleep';
export { takes, takesTrays } from './printer/takes';
export { rasterFor, type Raster } from './sending/raster';
export { formatFor, takesOneSide, type Format } from './printer/formats';
export { isGreyByItself } from './sending/grey';
export { AS_ONE, chooseWay, type Way } from './sending/ways';
export { pageRules, type PageRules } from './ticket/page-rules';
export { countChosen } from './planning/select';
export { scalesOf, type Scales } from './planning/scales';
export { sidesOf } from './planning/run';
export { routeCatches, type RouteCatch } from './planning/route-catches';
export { inTwoPasses, isBacksAlone } from './planning/passes';
export {
  countMarked,
  isMarked,
  MarksError,
  marksFrom,
  marksOf,
  marksOfPortion,
  marksOfSheets,
  minusMarks,
  parseMarks,
  plusMarks,
  sayMarks,
  writeMarks,
  type Markable,
  type MarkedSheet,
  type Marks,
  type Portion,
} from './plan/marks';
export { firstMissing } from './sending/first-missing';
export { readyTimes, type Ready, type Waiting } from './tally/ready';
export { passPlan } from './sending/pass-plan';
export { firstPortion, portionPlan, sheetsAtFirst, type Planned } from './sending/portion';
export { marksSchema, portionSchema } from './plan/portion.schema';
export {
  asSent,
  everySheet,
  informationSheetOf,
  isInformationSheet,
  outsideSets,
  partOf,
  printingOrder,
  writtenOut,
  type SetSheet,
} from './sending/printing-order';
export { sayDifference, sealOf, sealOfAll, type Seal, type Sealed, type SealOfMany } from './sending/seal';
export { sealOfManySchema, sealSchema } from './sending/seal.schema';
export { sheetList, SHEET_LIST_HEAD } from './sending/sheet-list';
export { profileForTicket } from './planner/profile-for-ticket';
export { legibility, type Legibility } from './tally/legibility';
export { compare, type WayToPrint } from './compare/compare';
export { fewestSheets, type FewestSheets } from './compare/fewest-sheets';
export { tryOutcome, type Outcome } from './compare/outcome';
export { CHEAPER_WAYS, type CheaperName, type CheaperWay } from './spend/cheaper';
export { SPENT_KINDS, spentOf, type Delivery, type PaperSpent, type Spent, type SpentKind } from './spend/spent';
export { deliver, type DeliveredSheet, type Face } from './hand/deliver';
export { leaf, type ReadPage } from './hand/leaf';
export {
  planRow,
  rowStanding,
  sayTrouble,
  seriesChecks,
  seriesTally,
  whyUnfit,
  type RowOutcome,
  type RowStanding,
  type SeriesCheck,
  type SeriesTally,
  type TrayNeed,
} from './series/series';
export { REPORT_HEAD, reportRows, reportSummary, type ReportEntry } from './series/report';
