import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { BeginningDto, DraftDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** Begins anew from a template of the kind or from another project's proposal; or keeps this one as a template. */
export function Begin({
	project,
	name,
	onBegun,
}: {
	project: number;
	name: string;
	onBegun: (draft: DraftDto) => void;
}) {
	const [open, setOpen] = useState(false);
	return (
		<>
			<Button onClick={() => setOpen(true)}>Begin from …</Button>
			<Window
				title="Begin from"
				open={open}
				onClose={() => setOpen(false)}
				wide
			>
				<Choices
					project={project}
					name={name}
					onBegun={(draft) => {
						setOpen(false);
						onBegun(draft);
					}}
				/>
			</Window>
		</>
	);
}

function Choices({
	project,
	name,
	onBegun,
}: {
	project: number;
	name: string;
	onBegun: (draft: DraftDto) => void;
}) {
	return (
		<>
			<p className="pb-3 text-soft">
				At today’s prices, in the quantities this project is known to need. What
				is written now is replaced, and can be taken back.
			</p>
			<BeginList project={project} onBegun={onBegun} />
			<Keep project={project} name={name} />
		</>
	);
}

/** What there is to begin with: templates of the kind, and what was sent for other projects. */
export function BeginList({
	project,
	onBegun,
}: {
	project: number;
	onBegun: (draft: DraftDto) => void;
}) {
	const act = useAct();
	const all = useQuery({
		queryKey: ["project", project, "beginnings"],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/proposal/beginnings", {
					params: { path: { id: project } },
				}),
			),
	});
	const begin = (from: BeginningDto) =>
		act.run(async () =>
			onBegun(
				await answer(
					api.POST("/api/projects/{id}/proposal/begin", {
						params: { path: { id: project } },
						body: { template: from.template, version: from.version },
					}),
				),
			),
		);
	const list = (title: string, of: BeginningDto[]) =>
		of.length > 0 && (
			<section className="pb-4">
				<h3 className="rule pb-1">{title}</h3>
				<ul>
					{of.map((one) => (
						<li
							key={`${one.template} ${one.version}`}
							className="flex items-baseline gap-3 border-b border-hair py-1.5"
						>
							<Button kind="line" onClick={() => begin(one)}>
								{one.name}
							</Button>
							<span className="under ml-auto">
								{one.services === 1 ? "1 service" : `${one.services} services`}
							</span>
							{one.template !== null && (
								<Button
									kind="word"
									size="small"
									onClick={() =>
										act.run(() =>
											answer(
												api.DELETE("/api/offer-templates/{id}", {
													params: { path: { id: one.template! } },
												}),
											),
										)
									}
								>
									take out<span className="sr-only">: {one.name}</span>
								</Button>
							)}
						</li>
					))}
				</ul>
			</section>
		);
	return (
		<>
			{list(
				"Templates of the kind",
				all.data?.filter((one) => one.template !== null) ?? [],
			)}
			{list(
				"Other projects",
				all.data?.filter((one) => one.version !== null) ?? [],
			)}
			{all.data?.length === 0 && (
				<p className="pb-3">
					Nothing yet: proposals that were sent for projects of this kind stand
					here, and the templates you keep.
				</p>
			)}
			<Refused of={act.refusal} />
		</>
	);
}

function Keep({ project, name }: { project: number; name: string }) {
	const [title, setTitle] = useState(name);
	const act = useAct();
	return (
		<form
			noValidate
			className="flex flex-wrap items-end gap-2"
			onSubmit={(event) => {
				event.preventDefault();
				act.run(() =>
					answer(
						api.POST("/api/projects/{id}/proposal/template", {
							params: { path: { id: project } },
							body: { name: title },
						}),
					),
				);
			}}
		>
			<div className="min-w-52 flex-1">
				<TextField
					label="Keep this one as a template named"
					value={title}
					wrong={act.refusal?.of("name")}
					onChange={(e) => setTitle(e.target.value)}
				/>
			</div>
			<Button type="submit" disabled={act.busy}>
				Keep the template
			</Button>
			<Refused of={act.refusal} />
		</form>
	);
}
