import { PDFBool, PDFDict, PDFName, PDFTextField, type PDFField, StandardFonts } from '@cantoo/pdf-lib';
import type { OpenPdf } from './open';

/**
 * Draws the form fields that have a value and no appearance of their own, or whose appearances the form says to make anew
 * (ISO 32000-1, 12.7.2, NeedAppearances), as a viewer does before it prints. A field that cannot be drawn, or holds
 * letters that the font for it lacks, stays as it is.
 *
 * @returns the names of the fields that could not be drawn
 */
export async function drawFormFields({ document, catalog, context }: OpenPdf): Promise<string[]> {
  const form = context.lookup(catalog.get(PDFName.of('AcroForm')));
  if (!(form instanceof PDFDict)) return [];
  const all = context.lookup(form.get(PDFName.of('NeedAppearances'))) === PDFBool.True;
  const fields = fieldsOf(document).filter((field) => all || lacksAppearance(field));
  if (fields.length === 0) return [];
  const font = await document.embedFont(StandardFonts.Helvetica);
  const letters = new Set(font.getCharacterSet());
  const left = fields.filter((field) => {
    try {
      // The library would print question marks in their place.
      if (!textOf(field).every((letter) => letters.has(letter))) return true;
      field.defaultUpdateAppearances(font);
      return false;
    } catch {
      // A field with entries missing is left as the file has it.
      return true;
    }
  });
  await document.flush();
  return left.map((field) => field.getName());
}

function fieldsOf(document: OpenPdf['document']): PDFField[] {
  try {
    return document.getForm().getFields();
  } catch {
    return [];
  }
}

const textOf = (field: PDFField): number[] =>
  field instanceof PDFTextField
    ? [...(field.getText() ?? '').replace(/\s/g, ' ')].map((one) => one.codePointAt(0) ?? 0)
    : [];

const lacksAppearance = (field: PDFField): boolean =>
  field.acroField.getWidgets().some((widget) => !widget.dict.has(PDFName.of('AP')));
