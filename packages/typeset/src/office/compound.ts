import { lockedDocument, unfitForm, wrongDocumentPassword } from '@foglio/pdf';
import office from 'officecrypto-tool';

/**
 * A document of an office program that came as a compound file: locked with a password (MS-OFFCRYPTO, 2.3.4), as the library
 * opens it, or of a form from before 2007.
 *
 * @throws PdfError where it needs a password, that is another, or nobody but its maker reads it
 */
export async function unlockOffice(bytes: Uint8Array, password: string | null): Promise<Uint8Array> {
  const file = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length);
  if (!isLocked(file)) {
    throw unfitForm(
      'it is of an old form that only office programs read',
      'Save it as .xlsx, .docx or .eml, or as PDF, and take that.',
    );
  }
  if (password === null) throw lockedDocument();
  try {
    return new Uint8Array(await office.decrypt(file, { password }));
  } catch {
    throw wrongDocumentPassword();
  }
}

function isLocked(file: Buffer): boolean {
  try {
    // Locked ones of the old form too are told so; they hold no such stream.
    return file.includes(Buffer.from('EncryptedPackage', 'utf16le')) && office.isEncrypted(file);
  } catch {
    return false;
  }
}
