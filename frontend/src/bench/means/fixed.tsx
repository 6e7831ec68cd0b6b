import { FacesView } from '../../drawing/FacesView';
import { NOTHING_TYPED, type MeansParts } from './kinds';

export const FIXED: MeansParts<'fixed'> = {
  Picture: ({ job, setting }) => <FacesView setting={setting} unit={job.unit} holder={null} />,
  useTry: () => NOTHING_TYPED,
};
