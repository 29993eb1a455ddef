/** What is offered for choice where files are chosen; whatever else comes is told by what is in it. */
export const DOCUMENT_KINDS =
  '.pdf,.png,.jpg,.jpeg,.tif,.tiff,.txt,.md,.csv,.tsv,.xlsx,.xlsm,.docx,.docm,.html,.htm,.mhtml,.mht,.eml,.zip,application/pdf,image/png,image/jpeg,image/tiff,text/plain,text/csv,text/html';
