using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Banking;
using Gesamt.Formats.Bank;
using Gesamt.Formats.Tables;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Banking;

/// <summary>Takes files of bank statements in: camt.053, or a table whose columns were matched once.</summary>
internal static class Statements
{
    public const long Most = 20L * 1024 * 1024;
    private const int Shown = 4,
        LongestName = 120;

    /// <summary>What a file says; its lines are kept unless it is a table whose columns nobody has matched yet.</summary>
    /// <exception cref="InvalidException">It is no statement that can be read; the words say why.</exception>
    public static async Task<StatementTakenDto> TakeAsync(
        Desk desk,
        string name,
        Stream content,
        CancellationToken stop
    )
    {
        var (hash, _) = await desk.Vault.KeepAsync(content, Most, stop);
        var file = desk.Vault.Read(hash);
        if (Camt053.Is(file))
            return await KeepAsync(desk, name, hash, Readable(() => Camt053.Read(file)));
        var table = Readable(() => TableText.Read(file));
        var headings = HeadingsOf(table);
        return
            await desk.Db.BankColumns.AsNoTracking().SingleOrDefaultAsync(c => c.Headings == headings, stop)
                is { } known
            ? await KeepAsync(
                desk,
                name,
                hash,
                [LinesOf(desk, table, known.Account, StoreJson.Read<ImmutableArray<StatementColumn>>(known.Columns))]
            )
            : new(
                table.Rows.Count,
                0,
                0,
                new(hash, name, table.Headings, [.. StatementTable.Guess(table.Headings)], [.. table.Rows.Take(Shown)])
            );
    }

    /// <summary>The columns as the owner says; remembered for every table with these headings.</summary>
    /// <exception cref="InvalidException">Something of it is wrong; the field is named.</exception>
    public static async Task<StatementTakenDto> MatchAsync(Desk desk, string hash, MatchStatementDto match)
    {
        if (!desk.Vault.Has(hash))
            throw new MissingException("file");
        var table = Readable(() => TableText.Read(desk.Vault.Read(hash)));
        if (match.Columns.Length != table.Headings.Count)
            throw new InvalidException(
                ("columns", $"The table has {table.Headings.Count} columns: say of each what it is.")
            );
        if (
            match
                .Columns.Where(column => column != StatementColumn.LeaveOut)
                .GroupBy(column => column)
                .Any(group => group.Skip(1).Any())
        )
            throw new InvalidException(
                ("columns", "Two columns are said to be the same thing. Leave one of them out.")
            );
        var account = match.Account.Trim();
        if (account.Length is 0 or > 60)
            throw new InvalidException(("account", "Name the account in 1 to 60 characters, best by its IBAN."));
        // as a file by camt.053 names it
        if (Iban.IsValid(account))
            account = Iban.Plain(account);
        var statement = LinesOf(desk, table, account, [.. match.Columns]);
        var headings = HeadingsOf(table);
        await desk.ActAsync(async act =>
        {
            await act.Db.BankColumns.Where(c => c.Headings == headings).ExecuteDeleteAsync();
            act.Db.BankColumns.Add(
                new()
                {
                    Headings = headings,
                    Account = account,
                    Columns = StoreJson.Write(match.Columns),
                }
            );
        });
        return await KeepAsync(desk, match.Name, hash, [statement]);
    }

    /// <summary>A file that was the wrong one, or whose columns were matched wrongly: its lines go, and a table is asked about again.</summary>
    /// <exception cref="RefusedException">Something of it was booked.</exception>
    public static Task TakeBackAsync(Desk desk, int id) =>
        desk.ActAsync(async act =>
        {
            var file =
                await act.Db.BankFiles.SingleOrDefaultAsync(f => f.Id == id) ?? throw new MissingException("file");
            var lines = act.Db.BankLines.Where(l => l.FileId == id);
            if (await lines.CountAsync(l => l.State == BankLineState.Booked) is > 0 and var booked)
                throw new RefusedException(
                    booked == 1
                        ? "One line of this file is booked. Undo it first."
                        : $"{booked} lines of this file are booked. Undo them first."
                );
            await LeaveToOthersAsync(act, file);
            await lines.ExecuteDeleteAsync();
            act.Db.BankFiles.Remove(file);
            var bytes = desk.Vault.Read(file.Hash);
            if (Camt053.Is(bytes))
                return;
            var headings = HeadingsOf(TableText.Read(bytes));
            await act.Db.BankColumns.Where(c => c.Headings == headings).ExecuteDeleteAsync();
        });

    /// <summary>A line that stands in another file, too, stays as that one's: only what this file alone said goes.</summary>
    private static async Task LeaveToOthersAsync(Act act, BankFileRow file)
    {
        var left = await act.Db.BankLines.Where(l => l.FileId == file.Id).Select(l => l.Key).ToHashSetAsync();
        foreach (
            var other in await act.Db.BankFiles.Where(f => f.Id != file.Id).OrderByDescending(f => f.Id).ToListAsync()
        )
        {
            if (left.Count == 0)
                break;
            var its = KeyedOf(await ReadAgainAsync(act.Desk, other)).ConvertAll(one => one.Key);
            its.RemoveAll(key => !left.Remove(key));
            foreach (var some in its.Chunk(500))
                await act
                    .Db.BankLines.Where(l => some.Contains(l.Key))
                    .ExecuteUpdateAsync(set => set.SetProperty(l => l.FileId, other.Id));
            other.New += its.Count;
        }
    }

    /// <summary>What a file said that was taken in; nothing where its columns are matched no more, or otherwise by now.</summary>
    private static async Task<IReadOnlyList<BankStatement>> ReadAgainAsync(Desk desk, BankFileRow file)
    {
        var bytes = desk.Vault.Read(file.Hash);
        if (Camt053.Is(bytes))
            return Camt053.Read(bytes);
        var table = TableText.Read(bytes);
        var headings = HeadingsOf(table);
        if (await desk.Db.BankColumns.AsNoTracking().SingleOrDefaultAsync(c => c.Headings == headings) is not { } known)
            return [];
        try
        {
            return
            [
                LinesOf(desk, table, known.Account, StoreJson.Read<ImmutableArray<StatementColumn>>(known.Columns)),
            ];
        }
        catch (InvalidException)
        {
            return [];
        }
    }

    private static string HeadingsOf(TableText table) => string.Join('\n', table.Headings);

    private static BankStatement LinesOf(
        Desk desk,
        TableText table,
        string account,
        ImmutableArray<StatementColumn> columns
    )
    {
        try
        {
            return StatementTable.Read(account, table.Rows, columns, desk.Currency);
        }
        catch (StatementException refused)
        {
            throw new InvalidException((refused.Field, refused.Message));
        }
    }

    private static T Readable<T>(Func<T> read)
    {
        try
        {
            return read();
        }
        catch (FormatException refused)
        {
            throw new InvalidException(("file", refused.Message));
        }
    }

    /// <summary>Keeps what is new, then books what leaves no doubt.</summary>
    private static async Task<StatementTakenDto> KeepAsync(
        Desk desk,
        string name,
        string hash,
        IReadOnlyList<BankStatement> statements
    )
    {
        var lines = KeyedOf(statements);
        if (lines.Count == 0)
            throw new InvalidException(("file", "There is no line in this file that the bank has booked."));
        var added = await desk.ActAsync(async act =>
        {
            var file = new BankFileRow
            {
                Name = name.Trim() is { Length: > 0 } said ? said[..Math.Min(LongestName, said.Length)] : "statement",
                Hash = hash,
                At = act.Now,
                Lines = lines.Count,
            };
            act.Db.BankFiles.Add(file);
            await act.Db.SaveChangesAsync();
            HashSet<string> known = [];
            foreach (var some in lines.Select(one => one.Key).Chunk(500))
                known.UnionWith(
                    await act.Db.BankLines.Where(l => some.Contains(l.Key)).Select(l => l.Key).ToListAsync()
                );
            var rows = lines
                .Where(one => !known.Contains(one.Key))
                .Select(one => RowOf(file.Id, one.Account, one.Line, one.Key))
                .ToList();
            act.Db.BankLines.AddRange(rows);
            file.New = rows.Count;
            await act.Db.SaveChangesAsync();
            return rows.ConvertAll(row => row.Id);
        });
        return new(lines.Count, added.Count, await BankBooking.BookCertainAsync(desk, added), null);
    }

    /// <summary>The lines of statements with what each is known again by. A line of nothing, such as a note of the bank's, pays nothing.</summary>
    private static List<(string Account, BankLine Line, string Key)> KeyedOf(IReadOnlyList<BankStatement> statements) =>
        [
            .. statements
                .SelectMany(statement =>
                    statement.Lines.Zip(BankLineKey.Of(statement), (line, key) => (statement.Account, line, key))
                )
                .Where(one => one.line.Amount.Minor != 0)
                .DistinctBy(one => one.key),
        ];

    private static BankLineRow RowOf(int file, string account, BankLine line, string key) =>
        new()
        {
            FileId = file,
            Key = key,
            Account = account,
            On = line.On,
            AmountMinor = line.Amount.Minor,
            Currency = line.Amount.Currency.Code,
            Party = line.Party,
            Text = line.Text,
            Reference = line.Reference,
        };
}
