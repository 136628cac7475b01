# Writes a record set of many small documents into the folder that -v folder names: -v invoices of four lines, most of them paid by a
# receipt of their own, to -v contacts customers at random, on random days of two years, in no order. Always the same for the same.
function random(below) { seed = (seed * 16807) % 2147483647; return seed % below }
function money(minor) { return sprintf("%d.%02d", minor / 100, minor % 100) }
function day(days) { return strftime("%Y-%m-%d", 1711929600 + 86400 * days, 1) }

BEGIN {
    seed = 7
    accounts = split("4000 4010 4020 4030 4040 4050", income, " ")
    for (account = 1; account <= accounts; account++) { chart = chart income[account] ",Income " account ",income\n" }
    printf "code,name,type\n1000,Bank,bank\n1100,Receivables,receivable\n3000,Capital,equity\n%s", chart > (folder "/accounts.csv")
    print "id,name,kind" > (folder "/contacts.csv")
    for (contact = 1; contact <= contacts; contact++) {
        printf "C%05d,Customer %d of Reedwater,customer\n", contact, random(1000000) > (folder "/contacts.csv")
    }

    print "id,kind,date,due,number,contact" > (folder "/documents.csv")
    print "document,account,amount,contact" > (folder "/lines.csv")
    print "from,to,amount,date" > (folder "/settlements.csv")
    for (invoice = 1; invoice <= invoices; invoice++) {
        # A step that has no factor in common with a prime goes through all numbers in no order.
        number = sprintf("%07d", (invoice * 48271) % 1299709)
        contact = sprintf("C%05d", 1 + random(contacts))
        days = random(700)
        printf "I%s,invoice,%s,%s,INV-%s,%s\n", number, day(days), day(days + 30), number, contact > (folder "/documents.csv")
        total = 0
        for (line = 1; line <= 3; line++) {
            amount = 100 + random(900000)
            total += amount
            printf "I%s,%s,-%s,\n", number, income[1 + random(6)], money(amount) > (folder "/lines.csv")
        }

        printf "I%s,1100,%s,%s\n", number, money(total), contact > (folder "/lines.csv")
        if (random(100) >= 85) {
            continue
        }

        paid = days + random(60) < 720 ? days + random(20) : days
        printf "R%s,receipt,%s,,REC-%s,%s\n", number, day(paid), number, contact > (folder "/documents.csv")
        printf "R%s,1000,%s,\nR%s,1100,-%s,%s\n", number, money(total), number, money(total), contact > (folder "/lines.csv")
        printf "R%s,I%s,%s,%s\n", number, number, money(total), day(paid) > (folder "/settlements.csv")
    }
}
