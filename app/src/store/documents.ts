/** The heavy part of `fileFormat.ts`: a file of its own, so that no page takes it along. */
export { fileFromLink, linkText, readDocument, saveDocument, unlikelyDates } from '@yes-clear/core/file';
