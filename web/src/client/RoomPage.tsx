import { type FormEvent, useEffect, useState } from "react";
import { answer, api, keepToken } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { RoomDto } from "../api/schema";
import { Button } from "../ui/Button";
import { TextField } from "../ui/TextField";
import { Notice } from "./Frame";

/** The stand-in video room: opens with its passcode; nobody is seen or heard there. */
export default function RoomPage({ code }: { code: string }) {
	const [passcode, setPasscode] = useState("");
	const [room, setRoom] = useState<RoomDto>();
	const [refusal, setRefusal] = useState<Refusal>();
	useEffect(() => {
		answer(api.GET("/rooms/{code}/door", { params: { path: { code } } })).then(
			(door) => keepToken(door.token),
			() => undefined,
		);
	}, [code]);
	async function enter(event: FormEvent) {
		event.preventDefault();
		try {
			setRoom(
				await answer(
					api.POST("/rooms/{code}/door", {
						params: { path: { code } },
						body: { passcode },
					}),
				),
			);
		} catch (error) {
			setRefusal(error as Refusal);
		}
	}
	if (room)
		return (
			<Notice title={room.name}>
				<p role="status">
					The room is open. This is a stand-in for a video service: nobody is
					seen or heard here.
				</p>
			</Notice>
		);
	return (
		<Notice title="A video room">
			<form onSubmit={enter} className="grid max-w-xs gap-3">
				<TextField
					label="Passcode"
					inputMode="numeric"
					hint="it stands in the invitation"
					value={passcode}
					wrong={refusal?.of("passcode") ?? refusal?.message}
					onChange={(e) => setPasscode(e.target.value)}
				/>
				<Button kind="go" type="submit">
					Enter the room
				</Button>
			</form>
		</Notice>
	);
}
