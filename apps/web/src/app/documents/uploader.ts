import { inject, Injectable } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import type { Form } from '@foglio/core';
import { firstValueFrom } from 'rxjs';
import { Api, fileTrouble, sayError } from '../api/api';
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

  private async ask(data: PasswordData): Promise<string | null> {
    const dialog = this.dialogs.open<PasswordDialog, PasswordData, string>(PasswordDialog, { data, width: '460px' });
    // An empty answer is none: that is what a button that only closes gives.
    return (await firstValueFrom(dialog.afterClosed())) || null;
  }
}
