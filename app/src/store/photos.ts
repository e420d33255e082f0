import { database } from './database';
import { newId } from './newId';

/** Longest side of a picture that is kept, px, and how finely: enough to read a gauge, small enough for hundreds. */
const LONGEST_PX = 1280;
const QUALITY = 0.82;

/** A picture scaled down as it is kept. */
async function scaledDown(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' });
  const share = Math.min(1, LONGEST_PX / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * share));
  canvas.height = Math.max(1, Math.round(picture.height * share));
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return new Promise((done, failed) =>
    canvas.toBlob((blob) => (blob ? done(blob) : failed(new Error('This picture could not be made smaller.'))), 'image/jpeg', QUALITY),
  );
}

/** Keeps a picture taken with a reading; returns its id, which the reading bears from then on. */
export async function keepPhoto(file: Blob, systemId: string, readingId: string): Promise<string> {
  const id = newId();
  await database.photos.put({ id, systemId, readingId, takenAt: new Date().toISOString(), picture: await scaledDown(file) });
  return id;
}

/** A picture as a page can show it; null where this browser does not hold it. */
export async function photoUrl(id: string): Promise<string | null> {
  const row = await database.photos.get(id);
  if (!row) return null;
  return new Promise((done) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result as string);
    reader.onerror = () => done(null);
    reader.readAsDataURL(row.picture);
  });
}
