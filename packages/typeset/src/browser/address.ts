/** Where a document is while it is laid out: nobody answers for that name (RFC 2606, 2). */
export const HOME = 'https://document.invalid/';
