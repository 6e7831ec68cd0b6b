import { GasketStack } from '../../drawing/GasketStack';
import { isOther, StackCounts, useStack } from '../set/StackCounts';
import type { MeansParts } from './kinds';

export const GASKETS: MeansParts<'gaskets'> = {
  Picture: ({ job, setting, view }) => <GasketStack gaskets={view} unit={job.unit} place={setting.place} />,
  useTry: (setting, view, job) => {
    const stack = useStack(view.next);
    return {
      above: (
        <StackCounts
          slug={job.slug}
          legend={`Gaskets ${setting.place}, as compressed`}
          stack={stack}
          now={view.now}
          box={view.box}
        />
      ),
      moved: '',
      way: '',
      stacks_um: [stack.pieces],
      isChanged: isOther(view.now, stack.pieces),
    };
  },
};
