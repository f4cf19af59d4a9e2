import { useState } from "react";
import { answer, api } from "../../api/client";
import type { ProjectPraiseDto, RecordDto } from "../../api/schema";
import { Shown } from "../../ui/Shown";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Carried } from "./Carried";
import { usePraise } from "./Praise";

/** Puts words to the client to be quoted, and asks for both leaves, with a letter. */
export function PutTestimonial(props: {
	record: RecordDto;
	onClose: () => void;
}) {
	const praise = usePraise(props.record.id);
	return (
		<Shown query={praise}>{(data) => <Put {...props} praise={data} />}</Shown>
	);
}

function Put({
	record,
	praise,
	onClose,
}: {
	record: RecordDto;
	praise: ProjectPraiseDto;
	onClose: () => void;
}) {
	const [words, setWords] = useState(
		praise.approved?.words ?? praise.kept[0]?.words ?? "",
	);
	const [name, setName] = useState(praise.approved?.name ?? praise.name);
	return (
		<Carried
			project={record.id}
			title="Ask to quote and to show"
			template="testimonial"
			button="Put it to the client"
			onClose={onClose}
			send={(letter) =>
				answer(
					api.POST("/api/projects/{id}/testimonial/put", {
						params: { path: { id: record.id } },
						body: { words, name, ...letter },
					}),
				)
			}
		>
			{(refusal) => (
				<>
					<p className="under">
						They read the words on their page, change them until they are right,
						and say yes or no to being quoted and to the work being shown. Only
						what they approve is ever offered to be quoted.
					</p>
					<TextArea
						label="Words to be quoted"
						hint="Left empty, they write them"
						rows={4}
						value={words}
						wrong={refusal?.of("words")}
						onChange={(e) => setWords(e.target.value)}
					/>
					<TextField
						label="Given with the name"
						value={name}
						wrong={refusal?.of("name")}
						onChange={(e) => setName(e.target.value)}
					/>
				</>
			)}
		</Carried>
	);
}
