import ExcelJS from 'exceljs';

const MONTHS = ['Sep', 'Oct', 'Nov', 'Dec', 'Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug'];

const MONEY = '"€" #,##0.00;[Red]-"€" #,##0.00';
const WHOLE_MONEY = '"€" #,##0;[Red]-"€" #,##0';

const INCOME: readonly (readonly [string, readonly number[]])[] = [
  ['Season tickets', [4200, 3100, 900, 1450, 700, 420, 380, 260, 140, 0, 0, 1900]],
  ['Single tickets', [0, 2860, 3140, 5220, 1180, 2050, 2430, 3310, 2740, 1960, 0, 0]],
  ['Town grant', [12000, 0, 0, 12000, 0, 0, 12000, 0, 0, 12000, 0, 0]],
  ['Friends of the orchestra', [640, 520, 610, 1890, 430, 450, 470, 520, 610, 580, 300, 250]],
  ['Programme advertisements', [300, 900, 450, 1200, 0, 350, 600, 450, 800, 250, 0, 0]],
  ['Hire of instruments', [180, 180, 180, 120, 180, 180, 180, 180, 180, 180, 60, 60]],
];

const EXPENSES: readonly (readonly [string, readonly number[]])[] = [
  ['Musicians’ fees', [3900, 4850, 5100, 7600, 2400, 3800, 4200, 4600, 4300, 3950, 0, 0]],
  ['Conductor', [900, 900, 900, 1350, 900, 900, 900, 900, 900, 900, 0, 0]],
  ['Soloists', [0, 1800, 0, 2600, 0, 1500, 0, 2100, 1200, 0, 0, 0]],
  ['Hall, heating and light', [650, 980, 1240, 1620, 1480, 1390, 1120, 940, 760, 680, 210, 210]],
  ['Sheet music and rights', [1260, 340, 180, 410, 220, 360, 150, 280, 190, 120, 640, 380]],
  ['Printing', [410, 330, 280, 520, 190, 240, 310, 290, 260, 220, 0, 340]],
  ['Transport and percussion hire', [220, 460, 240, 890, 180, 420, 230, 510, 280, 340, 0, 0]],
  ['Insurance', [0, 0, 0, 1980, 0, 0, 0, 0, 0, 0, 0, 0]],
  ['Office', [310, 290, 300, 340, 320, 280, 300, 310, 290, 300, 180, 190]],
];

const CONCERTS = [
  ['2026-10-10', 'Autumn Overture', 'Town Hall', 412, 9.5, 3914, 5120],
  ['2026-11-14', 'Strings by Candlelight', 'St Anne’s', 268, 12, 3216, 2480],
  ['2026-12-12', 'Winter Concert', 'Town Hall', 520, 11, 5720, 6980],
  ['2027-02-20', 'Young Soloists', 'Music School', 190, 8, 1520, 1340],
  ['2027-04-17', 'Spring Symphony', 'Town Hall', 441, 11, 4851, 5760],
  ['2027-05-29', 'Music on the Meadow', 'Riverside', 610, 6, 3660, 2290],
  ['2027-06-19', 'Season’s End', 'Town Hall', 388, 11, 4268, 4410],
] as const;

const sum = (values: readonly number[]): number => values.reduce((all, one) => all + one, 0);
const HEAD = { type: 'pattern', pattern: 'solid', fgColor: { argb: 'FFE7DFCF' } } as const;

/** The budget of the season: a workbook of four sheets, two of them wider than a page. */
export async function seasonBudget(): Promise<Buffer> {
  const book = new ExcelJS.Workbook();
  book.creator = 'Marrowbridge Town Orchestra';
  book.created = new Date('2026-09-01T09:00:00Z');
  summary(book);
  byMonth(book, 'Income', INCOME);
  byMonth(book, 'Expenses', EXPENSES);
  concerts(book);
  return Buffer.from(await book.xlsx.writeBuffer());
}

function titled(book: ExcelJS.Workbook, name: string, title: string, columns: number): ExcelJS.Worksheet {
  const sheet = book.addWorksheet(name, { pageSetup: { paperSize: 9, orientation: 'portrait' } });
  sheet.mergeCells(1, 1, 1, columns);
  sheet.getCell(1, 1).value = title;
  sheet.getCell(1, 1).font = { name: 'Calibri', size: 16, bold: true };
  sheet.getRow(1).height = 26;
  sheet.headerFooter.oddFooter = '&L&F&C&A&RPage &P of &N';
  return sheet;
}

function headRow(sheet: ExcelJS.Worksheet, number: number, names: readonly string[]): void {
  const row = sheet.getRow(number);
  row.values = [...names];
  row.eachCell((cell, column) => {
    cell.font = { name: 'Calibri', size: 11, bold: true };
    cell.fill = HEAD;
    cell.border = { bottom: { style: 'thin' } };
    cell.alignment = { horizontal: column === 1 ? 'left' : 'right' };
  });
}

/** A total with what it came to when the workbook was last saved. */
const total = (formula: string, result: number): ExcelJS.CellFormulaValue => ({ formula, result, date1904: false });

function byMonth(book: ExcelJS.Workbook, name: string, lines: typeof INCOME): void {
  const sheet = titled(book, name, `${name} by month, season 2026/27`, 14);
  headRow(sheet, 3, ['', ...MONTHS, 'Season']);
  lines.forEach(([label, months], at) => {
    const row = sheet.getRow(at + 4);
    row.values = [label, ...months, total(`SUM(B${at + 4}:M${at + 4})`, sum(months))];
  });
  const last = lines.length + 3;
  const totals = MONTHS.map((_, month) => {
    const letter = String.fromCharCode(66 + month);
    return total(`SUM(${letter}4:${letter}${last})`, sum(lines.map(([, months]) => months[month]!)));
  });
  const all = sum(lines.map(([, months]) => sum(months)));
  sheet.getRow(last + 1).values = ['Total', ...totals, total(`SUM(N4:N${last})`, all)];
  sheet.getRow(last + 1).eachCell((cell) => {
    cell.font = { name: 'Calibri', size: 11, bold: true };
    cell.border = { top: { style: 'double' } };
  });
  sheet.getColumn(1).width = 29;
  for (let column = 2; column <= 14; column += 1) {
    sheet.getColumn(column).width = 10.5;
    for (let row = 4; row <= last + 1; row += 1) sheet.getCell(row, column).numFmt = WHOLE_MONEY;
  }
  sheet.pageSetup.printTitlesColumn = 'A:A';
  sheet.pageSetup.printTitlesRow = '1:3';
}

function summary(book: ExcelJS.Workbook): void {
  const sheet = titled(book, 'Summary', 'Budget of the season 2026/27', 4);
  headRow(sheet, 3, ['', 'Planned', 'Last season', 'Change']);
  const [income, expenses] = [INCOME, EXPENSES].map((lines) => sum(lines.map(([, months]) => sum(months)))) as [
    number,
    number,
  ];
  const rows: [string, number, number][] = [
    ['Income', income, 88_410],
    ['Expenses', -expenses, -93_260.4],
    ['Carried over from last season', 3_150.75, 8_001.15],
    ['At the season’s end', income - expenses + 3_150.75, 3_150.75],
  ];
  rows.forEach(([label, planned, last], at) => {
    const row = sheet.getRow(at + 4);
    row.values = [label, planned, last, total(`B${at + 4}-C${at + 4}`, planned - last)];
    if (at === rows.length - 1) row.font = { name: 'Calibri', size: 11, bold: true };
    for (let column = 2; column <= 4; column += 1) sheet.getCell(at + 4, column).numFmt = MONEY;
  });
  sheet.getColumn(1).width = 32;
  for (let column = 2; column <= 4; column += 1) sheet.getColumn(column).width = 17;
  sheet.getCell('A10').value = 'Agreed by the committee on 28 August 2026. Soloists’ fees include their travel.';
  sheet.getCell('A10').alignment = { wrapText: true, vertical: 'top' };
  sheet.mergeCells('A10:D11');
  // On the orchestra's letterhead.
  sheet.pageSetup.margins = { left: 0.8, right: 0.8, top: 2, bottom: 1, header: 0.3, footer: 0.4 };
}

function concerts(book: ExcelJS.Workbook): void {
  const sheet = titled(book, 'Concerts', 'Concerts of the season', 8);
  headRow(sheet, 3, ['Day', 'Concert', 'Hall', 'Seats sold', 'Price', 'Taken', 'Cost', 'Covered']);
  CONCERTS.forEach(([day, ...rest], at) => {
    const row = sheet.getRow(at + 4);
    const [, , , , taken, cost] = rest;
    row.values = [new Date(`${day}T00:00:00Z`), ...rest, total(`F${at + 4}/G${at + 4}`, taken / cost)];
    row.getCell(1).numFmt = 'd mmm yyyy';
    for (const column of [5, 6, 7]) row.getCell(column).numFmt = MONEY;
    row.getCell(8).numFmt = '0.0%';
  });
  [13, 26, 15, 12, 11, 14, 14, 11].forEach((width, at) => (sheet.getColumn(at + 1).width = width));
}
