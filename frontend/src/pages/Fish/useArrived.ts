/** Whether everything tapped in an outing has arrived: asked before, the server's answer would not know of it. */
import { useOutbox } from "../../offline/useOuting";

export function useArrived(outing: string): boolean {
  return !useOutbox().entries.some((one) => one.write.outing === outing && !one.refused);
}
