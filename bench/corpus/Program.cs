// Makes a corpus: what the program answers to very many command lines on the demo and on ten made-up books, as a hash each.
// Made before and after a change that must change no output, two corpora differ in nothing, or in what the change mended.
//
//   dotnet run -c Release --project bench/corpus -- VLEI FILE [N]  makes one: a line per output, with the command line; with N, of
//                                                                   every Nth question alone
//   dotnet run -c Release --project bench/corpus -- diff A B      what is otherwise in the second, and how much is the same
using Corpus;

switch (args)
{
    case ["diff", var before, var after]:
        return CorpusFile.Compare(before, after);
    case [var vlei, var file, .. var every] when every is [] or [_] && int.TryParse(every is [var number] ? number : "1", out var step)
        && step > 0:
        using (var folder = new WorkFolder())
        {
            var runner = new Runner(Path.GetFullPath(vlei), folder.Path);
            CorpusFile.Write(
                file, runner.Answers([.. Questions.All(runner, Books.Make(runner), step).Where(question => question.IsTakenBy(step))]));
        }

        return 0;
    default:
        Console.Error.WriteLine("usage: corpus VLEI FILE [N] | corpus diff BEFORE AFTER");
        return 2;
}
