/** Where the link of another angler leads. */
import { useParams } from "wouter";
import { Empty } from "../../components/states";
import Join from "./Join";
import { words } from "./strings";

export default function JoinPage() {
  const { code } = useParams();
  return (
    <Empty page title={words.shareTitle}>
      <Join code={code} />
    </Empty>
  );
}
