/**
 * What reads, checks and writes files. It knows the schema of everything that is kept, with every kind of stage, and is
 * therefore fetched after the first page stands; `shell/router.ts` fetches it ahead of need, like every page.
 */
export const fileFormat = (): Promise<typeof import('./documents')> => import('./documents');
