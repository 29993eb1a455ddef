/** What stands in braces in a line, and is filled in for each page. */
export const LINE_FIELDS = ['page', 'pages', 'file page', 'file pages', 'section', 'file', 'title', 'date'] as const;
