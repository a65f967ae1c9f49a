import type { ActView } from "../parts/act";
import { Done } from "../parts/done";

export const view: ActView = { title: () => "Pierce relief holes round the wick", View: (props) => <Done {...props} button="Mark it pierced" /> };
