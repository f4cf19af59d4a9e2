using Gesamt.Core.Meetings;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Meetings;

/// <summary>A kind of meeting as its owner sets it.</summary>
public sealed record MeetingKindDto(
    int Id,
    string Name,
    MeetingTime When,
    MeetingPlace Place,
    string Where,
    int Minutes,
    int Step,
    int Buffer,
    int NoticeHours,
    int DaysAhead,
    int? MostPerDay,
    int ChangeHours,
    int ReminderHours,
    string Agenda,
    string Questions,
    int Edition
);

/// <summary>Kinds of meetings as the owner edits them.</summary>
public static class MeetingKinds
{
    /// <summary>All that are not put away.</summary>
    public static async Task<IReadOnlyList<MeetingKindDto>> AllAsync(Desk desk) =>
        [
            .. (
                await desk.Db.MeetingKinds.AsNoTracking().Where(k => !k.Removed).OrderBy(k => k.Id).ToListAsync()
            ).Select(Of),
        ];

    /// <exception cref="InvalidException">A number is out of its range; the field is named.</exception>
    public static async Task<int> SaveAsync(Desk desk, int? id, MeetingKindDto save)
    {
        return await desk.ActAsync(async act =>
        {
            var row = id is { } known
                ? await desk.Db.MeetingKinds.SingleOrDefaultAsync(k => k.Id == known && !k.Removed)
                    ?? throw new MissingException("kind of meeting")
                : new() { Name = "" };
            if (row.Edition != save.Edition)
                throw new StaleException(Of(row));
            List<(string, string)> errors = [];
            void Range(string field, int value, int least, int most, string unit)
            {
                if (value < least || value > most)
                    errors.Add((field, $"From {least} to {most} {unit}."));
            }
            if (save.Name.Trim().Length is 0 or > 80)
                errors.Add(("name", "A name of 1 to 80 characters is needed."));
            if (save.Place == MeetingPlace.Place && save.Where.Trim().Length is 0 or > 300)
                errors.Add(("where", "Say where, in 1 to 300 characters."));
            Range("minutes", save.Minutes, 5, 480, "minutes");
            Range("step", save.Step, 5, 240, "minutes");
            Range("buffer", save.Buffer, 0, 240, "minutes");
            Range("noticeHours", save.NoticeHours, 0, 720, "hours");
            Range("daysAhead", save.DaysAhead, 1, 365, "days");
            if (save.MostPerDay is { } most)
                Range("mostPerDay", most, 1, 50, "meetings");
            Range("changeHours", save.ChangeHours, 0, 720, "hours");
            Range("reminderHours", save.ReminderHours, 0, 720, "hours");
            if (save.Agenda.Length > 5_000)
                errors.Add(("agenda", "At most 5 000 characters."));
            if (save.Questions.Length > 2_000)
                errors.Add(("questions", "At most 2 000 characters."));
            if (errors.Count > 0)
                throw new InvalidException([.. errors]);
            (row.Name, row.When, row.Place, row.Where) = (save.Name.Trim(), save.When, save.Place, save.Where.Trim());
            (row.Minutes, row.Step, row.Buffer, row.NoticeHours, row.DaysAhead, row.MostPerDay) = (
                save.Minutes,
                save.Step,
                save.Buffer,
                save.NoticeHours,
                save.DaysAhead,
                save.MostPerDay
            );
            (row.ChangeHours, row.ReminderHours, row.Agenda, row.Questions) = (
                save.ChangeHours,
                save.ReminderHours,
                save.Agenda.Trim(),
                save.Questions.Trim()
            );
            row.Edition++;
            if (id is null)
                desk.Db.MeetingKinds.Add(row);
            await desk.Db.SaveChangesAsync();
            return row.Id;
        });
    }

    /// <summary>Not offered any more; meetings that were booked stay.</summary>
    public static async Task RemoveAsync(Desk desk, int id)
    {
        if (
            await desk
                .Db.MeetingKinds.Where(k => k.Id == id)
                .ExecuteUpdateAsync(set => set.SetProperty(k => k.Removed, true)) == 0
        )
            throw new MissingException("kind of meeting");
    }

    private static MeetingKindDto Of(MeetingKindRow k) =>
        new(
            k.Id,
            k.Name,
            k.When,
            k.Place,
            k.Where,
            k.Minutes,
            k.Step,
            k.Buffer,
            k.NoticeHours,
            k.DaysAhead,
            k.MostPerDay,
            k.ChangeHours,
            k.ReminderHours,
            k.Agenda,
            k.Questions,
            k.Edition
        );
}
