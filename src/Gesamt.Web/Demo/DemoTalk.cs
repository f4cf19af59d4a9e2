using System.Globalization;
using Gesamt.Core;
using Gesamt.Core.People;
using Gesamt.Web.Capture;
using Gesamt.Web.Hosting;
using Gesamt.Web.Meetings;
using Gesamt.Web.StandIns;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using NodaTime.Text;

namespace Gesamt.Web.Demo;

/// <summary>Meetings, slips and people of the demo.</summary>
public sealed class DemoTalk(IServiceProvider services)
{
    /// <summary>“Start call in 2 15:00”: a kind of meeting, in so many days, at a time of the studio's.</summary>
    public async Task SetAsync(Desk desk, ProjectId id, string text)
    {
        var parts = text.Split(" in ");
        var when = parts[1].Split(' ');
        var kind = await desk.Db.MeetingKinds.SingleAsync(k => k.Name == parts[0].Trim());
        var at =
            desk.Today.PlusDays(int.Parse(when[0], CultureInfo.InvariantCulture))
            + LocalTimePattern.CreateWithInvariantCulture("HH:mm").Parse(when[1]).GetValueOrThrow();
        await Of(desk).SetAsync(id, kind.Id, at);
    }

    /// <summary>The last meeting took place; the words are the owner's notes.</summary>
    public async Task HeldAsync(Desk desk, ProjectId id, string notes) =>
        await Of(desk)
            .HeldAsync(
                id,
                await desk
                    .Db.Meetings.Where(m => m.ProjectId == id && !m.Cancelled)
                    .OrderByDescending(m => m.Start)
                    .Select(m => m.Id)
                    .FirstAsync(),
                notes
            );

    /// <summary>A slip as the owner writes it.</summary>
    public static Task SlipAsync(Desk desk, string text) => Slips.KeepAsync(desk, new(text, null));

    /// <summary>“Name, mail: text”: somebody nobody knows writes.</summary>
    public static Task StrayAsync(Desk desk, PostOffice post, string text)
    {
        var (head, words) = (
            text[..text.IndexOf(':')].Split(',', StringSplitOptions.TrimEntries),
            text[(text.IndexOf(':') + 1)..].Trim()
        );
        post.Write(
            new MailboxAddress(head[0], head[1]),
            MailboxAddress.Parse(desk.Studio.Mail),
            "A question",
            words,
            desk.Now.ToDateTimeOffset(),
            null
        );
        return Task.CompletedTask;
    }

    /// <summary>“Name, mail, part”.</summary>
    public static async Task PartAsync(Desk desk, ProjectId id, string[] who)
    {
        var person = await desk.Db.People.FirstOrDefaultAsync(p => p.Name == who[0] && p.MergedInto == null);
        if (person is null)
        {
            desk.Db.People.Add(person = new() { Name = who[0], Mail = who[1] });
            await desk.Db.SaveChangesAsync();
        }
        desk.Db.ProjectPeople.Add(
            new()
            {
                ProjectId = id,
                PersonId = person.Id,
                Part = Enum.Parse<PersonPart>(who[2]),
            }
        );
        await desk.Db.SaveChangesAsync();
    }

    private Scheduling Of(Desk desk) =>
        new(
            desk,
            services.GetRequiredService<ICalendarSource>(),
            services.GetRequiredService<IVideoRooms>(),
            services.GetRequiredService<Doorplate>(),
            services.GetRequiredService<ILogger<Scheduling>>()
        );
}
