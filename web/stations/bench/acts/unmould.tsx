import type { ActView } from "../parts/act";
import { Done } from "../parts/done";

export const view: ActView = { title: () => "Take them out of the moulds", View: (props) => <Done {...props} button="Mark it unmoulded" /> };
