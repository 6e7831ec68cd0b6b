import { useDraft } from '../../app/unit';
import { Arc } from './Arc';
import type { MeansParts } from './kinds';

export const WEDGE: MeansParts<'wedge'> = {
  Picture: ({ view }) => <p>The wedge is in by {view.depth}.</p>,
  useTry: () => {
    const [pushed, setPushed] = useDraft('0');
    return {
      beside: <Arc label="Pushed in by" value={pushed} onChange={setPushed} />,
      moved: pushed,
      way: 'in',
      stacks_um: [],
      isChanged: false,
    };
  },
};
