import type { FormDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Fold } from "../../ui/Fold";
import { TextArea } from "../../ui/TextArea";

export function Snippets({ form }: { form: FormDto }) {
	return (
		<Fold line={<b className="font-[600]">Set it into your own site</b>}>
			<p className="under py-1">
				Once set in, it follows every change of the form by itself.
			</p>
			<TextArea
				label="As a script, which grows with the form"
				rows={2}
				readOnly
				value={form.snippet}
			/>
			<TextArea
				label="As a frame, where scripts are not allowed"
				rows={3}
				readOnly
				value={form.frameSnippet}
			/>
			<Button asChild kind="word">
				<a href={`/sample-site/${form.slug}`}>See it in a sample site</a>
			</Button>
		</Fold>
	);
}
