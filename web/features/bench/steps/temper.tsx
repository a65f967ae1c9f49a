import { Done } from "../parts/done";
import { Reading } from "../parts/reading";
import type { StepView } from "../parts/step";

export const view: StepView = {
  title: (prompt) => (prompt.entry === "read" ? "Bring it to the temper range" : "Hold it in the temper range"),
  View: (props) =>
    props.prompt.entry === "read" ? (
      <Reading {...props} button="Record temperature" />
    ) : (
      <>
        <Done {...props} button="Mark as tempered" />
        <div className="mt-4 border-t border-line pt-3">
          <Reading {...props} button="Record temperature" />
        </div>
      </>
    ),
};
