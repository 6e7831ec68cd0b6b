import { FacesView } from '../../drawing/FacesView';
import { NOTHING_TYPED, type MeansParts } from './kinds';

export const RING: MeansParts<'ring'> = {
  Picture: ({ job, setting }) => <FacesView setting={setting} unit={job.unit} holder={'ring'} />,
  useTry: () => NOTHING_TYPED,
};
