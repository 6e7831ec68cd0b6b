import { ShimView } from '../../drawing/ShimView';
import { isOther, StackCounts, useStack } from '../set/StackCounts';
import type { MeansParts } from './kinds';

export const SHIMS: MeansParts<'shims'> = {
  Picture: ({ job, setting, view }) => <ShimView shims={view} gaps={setting.gaps} unit={job.unit} />,
  useTry: (_setting, view, job) => {
    const [first, second] = view.shafts;
    const one = useStack(first?.next ?? []);
    const other = useStack(second?.next ?? []);
    return {
      above: view.shafts.map((shaft, i) => (
        <StackCounts
          key={shaft.name}
          slug={job.slug}
          legend={`Shims of the ${shaft.name}`}
          stack={i === 0 ? one : other}
          now={[...(first?.now ?? []), ...(second?.now ?? [])]}
          box={view.box}
          taken={i === 0 ? other.counts : one.counts}
        />
      )),
      moved: '',
      way: '',
      stacks_um: [one.pieces, other.pieces],
      isChanged: isOther(first?.now ?? [], one.pieces) || isOther(second?.now ?? [], other.pieces),
    };
  },
};
