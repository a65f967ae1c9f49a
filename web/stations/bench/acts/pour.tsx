import type { ActView } from "../parts/act";
import { MadeReady, Pouring } from "../parts/pouring-later";

export const view: ActView = {
  title: () => "Pour slowly, tap, stop at the shoulder",
  View: (props) => (
    <>
      <MadeReady batch={props.batch} />
      <Pouring {...props} button="Mark it poured" />
    </>
  ),
};
