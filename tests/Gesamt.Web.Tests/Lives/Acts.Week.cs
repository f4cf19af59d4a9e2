namespace Gesamt.Web.Tests.Lives;

/// <summary>What the owner does with a week: work put on days, times of one's own, notes kept in sight.</summary>
public static partial class Acts
{
    private static Task WeekAsync(Life life, Random random) =>
        random.Next(5) switch
        {
            0 => AppointmentAsync(life, random),
            1 => PinAsync(life, random),
            2 => EstimateAsync(life, random),
            _ => WorkOnAsync(life, random),
        };

    private static async Task WorkOnAsync(Life life, Random random)
    {
        if (await TaskOfAsync(life, random) is not var (project, task))
            return;
        await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/tasks/{task}/day",
            new { day = random.Next(5) == 0 ? null : Iso(life.Today.PlusDays(random.Next(-8, 20))) }
        );
    }

    private static async Task EstimateAsync(Life life, Random random)
    {
        if (await TaskOfAsync(life, random) is not var (project, task))
            return;
        await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/tasks/{task}/estimate",
            new { estimate = Operations.Pick(["", "3 h", "45 min", "1:30", "ages", "0", "999999 h"], random) }
        );
    }

    private static async Task<(long Project, long Task)?> TaskOfAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return null;
        var tasks = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db.Tasks.Where(t => t.ProjectId == new ProjectId(project)).Select(t => t.Id.Value).ToListAsync()
        );
        return tasks.Count == 0 ? null : (project, Operations.Pick(tasks, random));
    }

    private static async Task AppointmentAsync(Life life, Random random)
    {
        var known = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) => db.Appointments.Select(a => a.Id).ToListAsync()
        );
        if (known.Count > 0 && random.Next(3) == 0)
        {
            await life.OwnerAsync(
                "POST",
                $"/api/appointments/{Operations.Pick(known, random)}/removed",
                new { removed = random.Next(2) == 0 }
            );
            return;
        }
        var from = life.Today.PlusDays(random.Next(-3, 20)).At(new LocalTime(random.Next(24), 0));
        var body = new
        {
            what = $"Own time {Life.Private}",
            where = "",
            from = from.ToString("uuuu-MM-ddTHH:mm:ss", null),
            until = from.PlusMinutes(random.Next(-60, 3_000)).ToString("uuuu-MM-ddTHH:mm:ss", null),
            edition = random.Next(3),
        };
        if (known.Count > 0 && random.Next(2) == 0)
            await life.OwnerAsync("PUT", $"/api/appointments/{Operations.Pick(known, random)}", body);
        else
            await life.OwnerAsync("POST", "/api/appointments", body);
    }

    private static async Task PinAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        var notes = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db.Notes.Where(n => n.ProjectId == new ProjectId(project)).Select(n => n.Id.Value).ToListAsync()
        );
        if (notes.Count > 0)
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/notes/{Operations.Pick(notes, random)}/pinned",
                new { pinned = random.Next(3) > 0 }
            );
    }

    private static string Iso(LocalDate day) => day.ToString("uuuu-MM-dd", null);
}
