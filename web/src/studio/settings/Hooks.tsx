import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Shown } from "../../ui/Shown";
import { Section } from "../templates/Section";
import { Hook } from "./Hook";

/** Addresses of other programs that are told what happens. */
export function Hooks() {
	const [open, setOpen] = useState<number>();
	const hooks = useQuery({
		queryKey: ["hooks"],
		queryFn: () => answer(api.GET("/api/hooks")),
	});
	return (
		<Section
			title="Web hooks"
			under="other programs are told what happens, signed"
		>
			<Shown query={hooks}>
				{(data) => (
					<>
						{data.map((hook) => (
							<div key={hook.id} className="border-b border-hair py-1.5">
								<Button
									kind="line"
									className="font-[600]"
									aria-expanded={open === hook.id}
									onClick={() =>
										setOpen(open === hook.id ? undefined : hook.id)
									}
								>
									{hook.name}
								</Button>{" "}
								<span className="under">
									{hook.off ? "off" : hook.address}, {hook.taken} taken
									{hook.waiting > 0 && `, ${hook.waiting} to be tried`}
									{hook.givenUp > 0 && `, ${hook.givenUp} given up`}
								</span>
								{hook.failing && (
									<span className="block text-small font-[650]">
										{hook.failing}
									</span>
								)}
								{open === hook.id && (
									<Hook
										key={hook.edition}
										hook={hook}
										onDone={() => setOpen(undefined)}
									/>
								)}
							</div>
						))}
						{data.length === 0 && (
							<p className="py-1 text-soft">
								No program is told anything yet. Calls, what they were answered
								and what is tried again would stand here.
							</p>
						)}
					</>
				)}
			</Shown>
			{open === 0 ? (
				<Hook onDone={() => setOpen(undefined)} />
			) : (
				<Button className="mt-3" onClick={() => setOpen(0)}>
					Add a web hook
				</Button>
			)}
		</Section>
	);
}
