import { FacesView } from '../../drawing/FacesView';
import { NOTHING_TYPED, type MeansParts } from './kinds';

export const COUPLING: MeansParts<'coupling'> = {
  Picture: ({ job, setting }) => <FacesView setting={setting} unit={job.unit} holder={'coupling'} />,
  useTry: () => NOTHING_TYPED,
};
