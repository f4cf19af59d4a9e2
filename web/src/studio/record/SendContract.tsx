import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answer, api } from "../../api/client";
import type { ContractDeskDto, RecordDto } from "../../api/schema";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { OwnFile, SigningFields } from "../contract/SigningFields";
import { Carried } from "./Carried";

/** Puts a contract to the client for the price that is agreed, perhaps in the place of one that stands. */
export default function SendContract({
	record,
	onClose,
}: {
	record: RecordDto;
	onClose: () => void;
}) {
	const desk = useQuery({
		queryKey: ["project", record.id, "contract"],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/contract", {
					params: { path: { id: record.id } },
				}),
			),
		staleTime: Number.POSITIVE_INFINITY,
		gcTime: 0,
	});
	const [written, setWritten] = useState<ContractDeskDto>();
	useEffect(() => setWritten((mine) => mine ?? desk.data), [desk.data]);
	const set = (part: Partial<ContractDeskDto>) =>
		written && setWritten({ ...written, ...part });
	return (
		<Carried
			project={record.id}
			title="Send a contract"
			template="contract"
			button="Send the contract"
			disabled={!written}
			onClose={onClose}
			send={(letter) =>
				answer(
					api.POST("/api/projects/{id}/contract/send", {
						params: { path: { id: record.id } },
						body: {
							title: written!.title,
							text: written!.text,
							signing: written!.signing,
							...letter,
						},
					}),
				)
			}
		>
			{(refusal) =>
				written && (
					<>
						{written.inPlaceOf && (
							<p>It takes the place of {written.inPlaceOf}.</p>
						)}
						<TextField
							label="Title of the contract"
							value={written.title}
							wrong={refusal?.of("title")}
							onChange={(e) => set({ title: e.target.value })}
						/>
						{!written.signing.file && (
							<TextArea
								label="Contract text"
								rows={12}
								hint="Blanks in square brackets are filled from the record and from what was agreed."
								value={written.text}
								wrong={refusal?.of("text")}
								onChange={(e) => set({ text: e.target.value })}
							/>
						)}
						<OwnFile
							file={written.signing.file}
							wrong={refusal?.of("file")}
							onChange={(file) =>
								set({ signing: { ...written.signing, file } })
							}
						/>
						<SigningFields
							signing={written.signing}
							who={written.who}
							wrong={refusal?.of("signers")}
							onChange={(signing) => set({ signing })}
						/>
					</>
				)
			}
		</Carried>
	);
}
