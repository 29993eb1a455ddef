import * as bodies from './bodies';
import { list, type Operation } from './operation';
import * as records from './records';

/** What can be done with documents: taking them in, laying them out, what is known of them. */
export const FILE_OPERATIONS = {
  uploadFile: {
    method: 'post',
    path: '/api/files',
    says: 'Takes in a document of any kind that is known. The header Document-Password, percent-encoded, opens a locked one.',
    query: bodies.uploaded,
    takes: 'application/octet-stream',
    status: 201,
    refuses: ['upload-broken-off', 'file-unusable'],
    gives: records.fileRecord,
  },
  layOutFile: {
    method: 'post',
    path: '/api/files/{id}/forms',
    says: 'A file of the same document laid out in another form; the file itself where it is laid out so, or has pages of its own.',
    takes: bodies.formOfFile,
    status: 201,
    refuses: ['file-unusable', 'ticket-invalid'],
    gives: records.fileRecord,
  },
  stopLayingOut: {
    method: 'delete',
    path: '/api/files/{id}/forms',
    says: 'Ends what is being laid out of a long document; its first pages stay.',
    status: 200,
    gives: records.fileRecord,
  },
  filesNamed: {
    method: 'get',
    path: '/api/files',
    says: 'The files of a name, each content once.',
    query: bodies.fileName,
    status: 200,
    gives: list(records.fileBrief),
  },
  file: { method: 'get', path: '/api/files/{id}', says: 'A file’s facts.', status: 200, gives: records.fileRecord },
  newFacts: {
    method: 'get',
    path: '/api/files/{id}/facts',
    says: 'What became known of a file’s pages since so many were.',
    query: bodies.knownPages,
    status: 200,
    gives: records.factsRecord,
  },
  fileContent: {
    method: 'get',
    path: '/api/files/{id}/content',
    says: 'A file as it was taken in.',
    status: 200,
    gives: 'application/pdf',
  },
} as const satisfies Readonly<Record<string, Operation>>;
