import { answer, api, upload } from "../../api/client";
import type { ReadInquiryDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { TextArea } from "../../ui/TextArea";

/** Reads who wrote and what out of a message that is pasted, or a mail file. */
export function FromMessage({
	read,
	reading,
	onReading,
}: {
	read: (from: () => Promise<ReadInquiryDto>) => void;
	/** The text being pasted; undefined while none is. */
	reading: string | undefined;
	onReading: (text: string | undefined) => void;
}) {
	return (
		<>
			<div className="flex flex-wrap gap-2">
				<Button
					onClick={() => onReading(reading === undefined ? "" : undefined)}
				>
					Paste a message
				</Button>
				<FilePick
					accept=".eml,message/rfc822"
					name="Take a mail file"
					onFiles={([file]) => {
						if (file)
							read(() => upload<ReadInquiryDto>("/api/inquiries/letter", file));
					}}
				>
					Take a mail file
				</FilePick>
				<span className="under self-center">or drop one here (.eml)</span>
			</div>
			{reading !== undefined && (
				<div className="grid gap-2 bg-plaster p-3">
					<TextArea
						label="The message"
						rows={5}
						autoFocus
						value={reading}
						onChange={(e) => onReading(e.target.value)}
					/>
					<div>
						<Button
							disabled={!reading.trim()}
							onClick={() =>
								read(() =>
									answer(
										api.POST("/api/inquiries/read", {
											body: {
												text: reading,
											},
										}),
									),
								)
							}
						>
							Read it
						</Button>
					</div>
				</div>
			)}
		</>
	);
}
