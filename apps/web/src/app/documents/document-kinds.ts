/** What is offered for choice where files are chosen; whatever else comes is told by what is in it. */
export const DOCUMENT_KINDS =
  '.pdf,.png,.jpg,.jpeg,.txt,.csv,.tsv,.xlsx,.xlsm,application/pdf,image/png,image/jpeg,text/plain,text/csv';
