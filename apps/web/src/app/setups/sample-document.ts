import type { JobDocument } from '@foglio/api';
import { ANY_FILE, mmToPoints, type Ticket } from '@foglio/core';

const PAGES = 12;
const A4 = { width: mmToPoints(210), height: mmToPoints(297) };
const SECTIONS = [1, 5, 9];

/** What a set-up is drawn over, since it has no document of its own: twelve A4 pages in three sections. */
export const SAMPLE: JobDocument = {
  id: ANY_FILE,
  name: 'any file',
  sha256: '',
  pages: Array.from({ length: PAGES }, () => ({
    ...A4,
    color: true,
    looksGray: false,
    blank: false,
    smallestText: 10,
  })),
  outline: SECTIONS.map((page, at) => ({ title: `Section ${at + 1}`, level: 1, page, top: 0 })),
  about: {},
  remarks: [],
  read: PAGES,
};

/** The documents of a set-up as it is drawn: the sample, as often as it prints a file. */
export const sampleDocuments = ({ documents }: Ticket): readonly JobDocument[] => documents.map(() => SAMPLE);
