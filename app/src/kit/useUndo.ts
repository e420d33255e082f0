import { useHistory } from '../store/history';
import { useNotice, type NoticeAction } from './useNotice';

/** The way to take back what was just said to be done, by touch. */
export function useUndo(): NoticeAction {
  const history = useHistory();
  const notice = useNotice();
  return { label: 'Undo', run: () => void history.undo().then((says) => notice.say(says)) };
}
