import { Document, Packer, Paragraph, type IPropertiesOptions, type ISectionOptions } from 'docx';

/** Text documents as another library writes them (`docx` of the registry). */
export const made = async (options: IPropertiesOptions): Promise<Uint8Array> =>
  new Uint8Array(await Packer.toBuffer(new Document(options)));

/** ISO 216, in twentieths of a point. */
export const A4 = { width: 11_906, height: 16_838 };

export const TEXT =
  'The spring season brings eleven concerts in four halls, and each needs a plan of its seats in time. ';

export const lines = (...texts: string[]): Paragraph[] => texts.map((text) => new Paragraph(text));

/** A document of one section, on A4. */
export const onA4 = (
  children: ISectionOptions['children'],
  options: Omit<IPropertiesOptions, 'sections'> = {},
): Promise<Uint8Array> => made({ ...options, sections: [{ properties: { page: { size: A4 } }, children }] });
