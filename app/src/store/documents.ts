/** The heavy part of `fileFormat.ts`: a file of its own, so that no page takes it along. */
export { readDocument, saveDocument, unlikelyDates } from '@yes-clear/core/file';
