import type { ActView } from "../parts/act";
import { Done } from "../parts/done";

export const view: ActView = { title: () => "Set it aside until the bubbles have risen", View: (props) => <Done {...props} button="Mark it rested" /> };
