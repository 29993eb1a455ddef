import { inject, Injectable } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import type { Form } from '@foglio/core';
import { firstValueFrom, retry } from 'rxjs';
import { Api, fileTrouble, sayError, WHILE_AWAY } from '../api/api';
import type { FileRecord } from '@foglio/api';
import { PasswordDialog, type PasswordData } from './password-dialog';

/** Troubles that the right password settles. */
const SETTLED_BY_PASSWORD = ['locked', 'wrong-password', 'printing-forbidden'];

/** Brings files to the server, and asks for the password of a locked one until it opens or is left out. */
@Injectable({ providedIn: 'root' })
export class Uploader {
  private readonly api = inject(Api);
  private readonly dialogs = inject(MatDialog);

  /** @returns null where the file was left out; throws what cannot be settled here */
  async upload(file: File, form: Form = {}, first = false): Promise<FileRecord | null> {
    for (let password: string | null = null; ;) {
      try {
        return await firstValueFrom(this.api.upload(file, password, form, first));
      } catch (error) {
        if (!SETTLED_BY_PASSWORD.includes(fileTrouble(error) ?? '')) throw error;
        password = await this.ask({ name: file.name, why: sayError(error) });
        if (password === null) return null;
      }
    }
  }

  /** What is attached to a mail, each a document of its own, and what cannot be taken of it. */
  async attachedTo(mail: FileRecord, form: Form = {}): Promise<{ taken: FileRecord[]; refused: string[] }> {
    const taken: FileRecord[] = [];
    const refused: string[] = [];
    for (const attachment of mail.laid?.attachments ?? []) {
      try {
        taken.push(await firstValueFrom(this.api.layOut(mail.id, { ...form, attachment }).pipe(retry(WHILE_AWAY))));
      } catch (error) {
        const isLocked = SETTLED_BY_PASSWORD.includes(fileTrouble(error) ?? '');
        refused.push(`${attachment}: ${sayError(error)}${isLocked ? ' Save it and drop it here by itself.' : ''}`);
      }
    }
    return { taken, refused };
  }

  private async ask(data: PasswordData): Promise<string | null> {
    const dialog = this.dialogs.open<PasswordDialog, PasswordData, string>(PasswordDialog, { data, width: '460px' });
    // An empty answer is none: that is what a button that only closes gives.
    return (await firstValueFrom(dialog.afterClosed())) || null;
  }
}
