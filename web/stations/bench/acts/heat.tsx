import type { ActView } from "../parts/act";
import { Reading } from "../parts/reading";

export const view: ActView = { title: () => "Heat the wax", View: (props) => <Reading {...props} button="Record the heat reading" /> };
