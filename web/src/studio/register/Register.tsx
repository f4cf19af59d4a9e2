import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fold } from "../../ui/Fold";
import { Shown } from "../../ui/Shown";
import { Over } from "../Over";
import { useNarrow } from "../useNarrow";
import { Narrowing } from "./Narrowing";
import { RegisterList } from "./RegisterList";
import { RegisterTable } from "./RegisterTable";
import { SavedViews } from "./SavedViews";
import { useView } from "./useView";

/** Every project in a table: columns to choose, sorted, narrowed, put together and added up. */
export default function Register() {
	const view = useView();
	const narrow = useNarrow();
	const register = useQuery({
		queryKey: ["over", "register", view.search.toString()],
		queryFn: () =>
			answer(api.GET("/api/register", { params: { query: view.asked } })),
		placeholderData: (before) => before,
	});
	useEffect(() => {
		document.title = "Register, Gesamt";
	}, []);
	return (
		<main className="px-5 pb-8 max-md:px-4">
			<div className="flex flex-wrap items-end gap-x-5 gap-y-2 pt-4 pb-3">
				<h1>Register</h1>
				<p className="text-soft">{register.data?.summary}</p>
				<div className="ml-auto flex flex-wrap gap-2 max-md:ml-0">
					<Over />
					<SavedViews view={view} />
					<Button asChild>
						<a href={`/api/register.csv?${view.search}`} download>
							Save as CSV
						</a>
					</Button>
				</div>
			</div>
			<Shown
				query={register}
				usual={<Link to="/register">Show all projects</Link>}
			>
				{(data) => (
					<>
						{narrow ? (
							<>
								<Fold
									className="py-2"
									line={<span className="font-semibold">Which and how</span>}
								>
									<Narrowing view={view} register={data} />
								</Fold>
								<RegisterList view={view} register={data} />
							</>
						) : (
							<>
								<Narrowing view={view} register={data} />
								<RegisterTable view={view} register={data} />
							</>
						)}
					</>
				)}
			</Shown>
		</main>
	);
}
