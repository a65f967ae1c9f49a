import { ProcessEditor } from "@/features/formulas/process-editor";

export const metadata = { title: "New process" };

export default function NewProcessPage() {
  return <ProcessEditor kept={null} />;
}
