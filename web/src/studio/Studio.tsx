import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense } from "react";
import { Navigate, Route, Routes } from "react-router";
import type { SessionDto } from "../api/schema";
import { Alert } from "../ui/Fields";
import { get, keepToken } from "../ui/http";
import { UndoProvider } from "../ui/Undo";
import { Bar } from "./Bar";
import { Keys } from "./Keys";
import { useLive } from "./live";
import { RecordPage } from "./record/RecordPage";
import { SignIn } from "./SignIn";
import { Today } from "./Today";
import { Turns } from "./Turns";

const ProposalPage = lazy(() => import("./proposal/ProposalPage"));
const AsClient = lazy(() => import("./record/AsClient"));
const Register = lazy(() => import("./Register"));
const Templates = lazy(() => import("./templates/Templates"));
const StudioPage = lazy(() => import("./settings/StudioPage"));
const People = lazy(() => import("./people/People"));
const Person = lazy(() => import("./people/Person"));
const LabelPage = lazy(() => import("./LabelPage"));
const Tray = lazy(() => import("./Tray"));
const Import = lazy(() => import("./Import"));
const PostOffice = lazy(() => import("./PostOffice"));

/** The owner's side: signed in, or asked to. */
export function Studio() {
	const session = useQuery({
		queryKey: ["session"],
		queryFn: async () => {
			const answer = await get<SessionDto>("/api/session");
			keepToken(answer.token);
			return answer;
		},
		staleTime: Number.POSITIVE_INFINITY,
	});
	if (session.error)
		return (
			<main className="p-6">
				<Alert>{session.error.message}</Alert>
			</main>
		);
	if (!session.data) return null;
	return session.data.owner ? (
		<SignedIn session={session.data} />
	) : (
		<SignIn studio={session.data.studio} />
	);
}

function SignedIn({ session }: { session: SessionDto }) {
	useLive();
	return (
		<UndoProvider>
			<Bar session={session} />
			<Keys />
			<Suspense fallback={<main className="p-6">One moment</main>}>
				<Routes>
					<Route path="/" element={<Navigate to="/today" replace />} />
					<Route path="/today" element={<Today />} />
					<Route path="/turns" element={<Turns />} />
					<Route path="/register" element={<Register />} />
					<Route path="/templates/*" element={<Templates />} />
					<Route path="/studio" element={<StudioPage />} />
					<Route path="/people" element={<People />} />
					<Route path="/people/:id" element={<Person />} />
					<Route path="/labels/:label" element={<LabelPage />} />
					<Route path="/tray" element={<Tray />} />
					<Route path="/import/:id?" element={<Import />} />
					<Route path="/projects/:id" element={<RecordPage />} />
					<Route path="/projects/:id/proposal" element={<ProposalPage />} />
					<Route path="/projects/:id/as-client" element={<AsClient />} />
					{session.hasStandIns && (
						<Route
							path="/post-office/:letter?"
							element={<PostOffice clock={session.clockCanBeSet} />}
						/>
					)}
					<Route
						path="*"
						element={
							<main className="p-6">
								<h1>There is no such page</h1>
							</main>
						}
					/>
				</Routes>
			</Suspense>
		</UndoProvider>
	);
}
