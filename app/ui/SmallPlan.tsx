import { Tessera } from './Tessera';
import './SmallPlan.css';

/** A small Latin square, drawn where a list is still empty. */
export const SmallPlan = () => (
  <div className="small-plan" aria-hidden="true">
    {[0, 1, 2, 2, 0, 1, 1, 2, 0].map((index, i) => (
      <Tessera key={i} index={index} size={34} />
    ))}
  </div>
);
