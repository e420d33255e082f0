/** Lines of cost as the science of options books them. */
export type ChapterLine =
  'capital' | 'resin' | 'carbon' | 'prefilters' | 'membrane' | 'water' | 'sewer' | 'energy' | 'salt' | 'visits' | 'penalties';
